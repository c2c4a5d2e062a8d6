// SPDX-License-Identifier: GPL-3.0-or-later
//
// For pictures and tests alone: lets the window go on working until something is so. What the grower uses waits for nothing.
#pragma once

#include "app/model/document.h"

#include <QCoreApplication>
#include <QElapsedTimer>
#include <QThread>

namespace muffle {

/// False if it was not so in time.
template <class Condition> bool waitUntil(Condition isSo, int timeout_ms = 120000) {
  QElapsedTimer timer;
  timer.start();
  while (!isSo() && timer.elapsed() < timeout_ms) {
    QCoreApplication::processEvents(QEventLoop::AllEvents, 20);
    QThread::msleep(1);
  }
  return isSo();
}

/// The present plan's winters; at once false where there is no weather to run them over.
inline bool waitForResult(const Document& document, int timeout_ms = 60000) {
  const LogInHand& readings = document.readings();
  waitUntil([&] { return document.results().isCurrent() || !(readings.isPreparing() || readings.weather()); }, timeout_ms);
  return document.results().isCurrent();
}

inline bool waitForSizing(const Document& document, int timeout_ms = 600000) {
  return waitUntil([&] { return !document.results().isSizing(); }, timeout_ms);
}

} // namespace muffle
