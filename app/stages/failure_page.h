// SPDX-License-Identifier: GPL-3.0-or-later
//
// If it fails: what fails, when and for how long; how the air falls, when each line is crossed, and what would have held it.
#pragma once

#include "app/model/document.h"
#include "app/model/latest_job.h"
#include "core/failure/remedies.h"

#include <QTimer>
#include <QWidget>

#include <atomic>
#include <memory>

class QComboBox;
class QLabel;
class QPushButton;

namespace muffle {

class Plot;

class FailurePage : public QWidget {
  Q_OBJECT
public:
  explicit FailurePage(Document& document, QWidget* parent = nullptr);
  ~FailurePage() override;
  void refresh();
  void findWorst();
  [[nodiscard]] const FailureRun* shown() const { return m_study ? &m_study->run : nullptr; }
  [[nodiscard]] bool isWorking() const { return m_job.isWorking() || m_soon.isActive(); }
  [[nodiscard]] QString words() const;

private:
  struct Study {
    FailureRun run;
    Remedies remedies;
    bool isWorst = false;
    std::shared_ptr<const Scene> scene = {};
    std::size_t moments = 0;
  };
  /// What is asked, so that it is not asked twice.
  struct Asked {
    Plan plan;
    std::shared_ptr<const Weather> weather;
    FailureQuestion question;
    std::optional<std::pair<std::size_t, std::size_t>> moment; ///< none: the worst
  };
  void listThings();
  void ask(bool worst);
  void draw();
  /// The picture and the scarf go to the night and hour of the worst moment.
  void turnToWorst();
  void say(const QString& text);
  [[nodiscard]] std::optional<FailingThing> thing() const;
  [[nodiscard]] QString clockText(UtcSeconds at) const;
  /// Winter and step that the clock stands at.
  [[nodiscard]] std::optional<std::pair<std::size_t, std::size_t>> momentNow() const;

  Document& m_document;
  QComboBox *m_what, *m_hours;
  QPushButton* m_worst;
  QLabel *m_words, *m_held;
  Plot* m_plot;
  std::vector<FailingThing> m_things;
  std::optional<Study> m_study;
  std::optional<Asked> m_asked;
  std::optional<std::pair<std::size_t, std::size_t>> m_worstAskedAt; ///< where the clock stood
  bool m_isTurning = false;                                          ///< the clock goes by this page, not by the grower
  std::shared_ptr<const Scene> m_scene;                              ///< of the last answer
  QTimer m_soon;
  LatestJob<Study> m_job{this}; ///< last: it uses what is above
};

} // namespace muffle
