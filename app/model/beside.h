// SPDX-License-Identifier: GPL-3.0-or-later
//
// Runs something that takes a while on a thread of its own and returns its answer, while the window goes on being drawn. Nothing that the
// grower does is taken meanwhile, unless `taken` says so (a dialog that shows how far it is, with a button to stop).
//
//   auto bytes = beside([&] { return readFile(path); });
#pragma once

#include <QEventLoop>
#include <QMetaObject>

#include <optional>
#include <thread>

namespace muffle {

template <class Work> auto beside(Work work, QEventLoop::ProcessEventsFlags taken = QEventLoop::ExcludeUserInputEvents) {
  QEventLoop loop;
  std::optional<decltype(work())> answer;
  {
    const std::jthread worker([&] {
      answer = work();
      QMetaObject::invokeMethod(&loop, &QEventLoop::quit, Qt::QueuedConnection);
    });
    loop.exec(taken);
  }
  return std::move(*answer);
}

} // namespace muffle
