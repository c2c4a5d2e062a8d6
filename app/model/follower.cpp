// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/follower.h"

#include "app/model/document.h"
#include "book/files.h"
#include "core/log/recipe.h"

#include <QFileInfo>

namespace muffle {
namespace {

constexpr int kEvery_ms = 5000;

} // namespace

Follower::Follower(Document& document, QObject* parent) : QObject(parent), m_document(document) {
  connect(&m_watcher, &QFileSystemWatcher::fileChanged, this, &Follower::look);
  connect(&m_watcher, &QFileSystemWatcher::directoryChanged, this, &Follower::look);
  connect(&m_timer, &QTimer::timeout, this, &Follower::look);
  m_timer.setInterval(kEvery_ms);
}

void Follower::follow(const QString& path) {
  if (!m_watcher.files().isEmpty()) m_watcher.removePaths(m_watcher.files());
  if (!m_watcher.directories().isEmpty()) m_watcher.removePaths(m_watcher.directories());
  m_path = path;
  m_size = -1;
  m_timer.stop();
  if (path.isEmpty()) return;
  m_watcher.addPath(QFileInfo(path).absolutePath()); // the file may be written anew under its name
  m_timer.start();
  look();
}

void Follower::look() {
  if (m_path.isEmpty()) return;
  const QFileInfo file(m_path);
  if (!file.exists()) return; // the logger has not begun, or is changing files
  if (m_watcher.files().isEmpty()) m_watcher.addPath(m_path);
  if (m_job.isWorking()) {
    m_changed = true;
    return;
  }
  if (file.size() == m_size) return;
  m_size = file.size();
  ReadOptions options;
  options.zone = m_document.planInHand().zone();
  const auto recipes = m_document.book().recipes();
  m_job.start(
      [path = m_path.toStdString(), options, recipes](const auto& goOn, const auto*) -> Result<ReadLog> {
        ReadOptions asked = options;
        asked.progress = [&](double share) { return goOn(static_cast<std::size_t>(100.0 * share), 100); };
        const auto bytes = readFile(path);
        if (!bytes) return bytes.problems();
        const auto end = bytes->find_last_of("\r\n");
        if (end == std::string::npos) return Problem{ProblemKind::badInput, path, Message{"log.no-whole-line-yet"}, Message{"log.waiting-for-logger"}};
        const std::string_view whole = std::string_view(*bytes).substr(0, end + 1);
        auto read = readLog(whole, asked);
        if (!read) return read;
        const Recipe* known = recipeFor(recipes, read->headings);
        return known ? readLog(whole, withRecipe(asked, *known)) : std::move(read);
      },
      [this, path = m_path](Result<ReadLog> read) {
        if (path != m_path) return; // of a book that was shut meanwhile
        if (read) {
          read->log.name = QFileInfo(m_path).fileName().toStdString();
          m_document.readings().followed(read->log);
        }
        if (std::exchange(m_changed, false)) look();
      });
}

} // namespace muffle
