// SPDX-License-Identifier: GPL-3.0-or-later
//
// A file that a logger keeps writing. Whenever it has grown, its whole lines are read and what is new goes into the log; a line still
// being written waits for its end. The file is read anew each time, so nothing is lost or doubled whatever happened in between.
#pragma once

#include "app/model/latest_job.h"
#include "core/log/read.h"

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>

namespace muffle {

class Document;

class Follower : public QObject {
  Q_OBJECT
public:
  explicit Follower(Document& document, QObject* parent = nullptr);
  /// An empty path ends it. The path is kept in the book's settings by the caller.
  void follow(const QString& path);
  [[nodiscard]] QString path() const { return m_path; }

public slots:
  void look();

private:
  Document& m_document;
  QString m_path;
  qint64 m_size = -1; ///< when it was last read
  bool m_changed = false;
  QFileSystemWatcher m_watcher;
  QTimer m_timer; ///< network drives tell nothing
  LatestJob<ReadLog> m_job{this};
};

} // namespace muffle
