// SPDX-License-Identifier: GPL-3.0-or-later
//
// Dates and clock times as loggers and people write them.
//
//   parseClock("17/01/2031 5:10 pm", DateForm::dayFirst)->local
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace muffle {

enum class DateForm {
  iso,
  dayFirst,
  monthFirst,
  epoch,      ///< seconds, or by their size milliseconds, since 1970
  spreadsheet ///< days since 1899-12-30
};

struct Clock {
  std::int64_t local = 0;      ///< seconds since 1970 on the wall clock
  std::optional<int> offset_s; ///< said in the text
  bool hasTime = true;         ///< false: a date alone, at midnight
};

/// Reads "17/01/2031 5:10 pm", "Fri 17 Jan 2031 05:10", "2031-01-17T05:10:00+01:00", "20310117 0510", seconds or milliseconds since
/// 1970. Nothing if it is no date of 1900 to 2200.
std::optional<Clock> parseClock(std::string_view text, DateForm form);

/// Which number is the month, where the first rows of a table do not prove it: from all its dates, told one after the other. A day above 12 proves it; without
/// any the order in which the days follow one another.
class DateOrder {
public:
  void see(std::string_view date);
  /// Nothing where neither tells.
  [[nodiscard]] std::optional<DateForm> form() const;

private:
  struct Reading {
    std::int64_t day = 0; ///< the date before; since 1970
    long readable = 0, follow = 0;
  };
  void see(std::string_view date, DateForm form, Reading& reading);
  std::string m_last;
  Reading m_dayFirst, m_monthFirst;
};

/// The form most of the cells have. `ambiguous`: no day above 12 and no month's name proves which number is the month.
DateForm guessDateForm(const std::vector<std::string>& cells, bool& ambiguous);

/// Whether day numbers of a spreadsheet run on as a logger's clock does: from 1990 on, most steps alike and of two days at most.
bool stepsLikeDays(const std::vector<std::string>& cells);

/// "5:10", "17:45:00", "5.10 pm": a time of day without a date.
bool isClockOnly(std::string_view cell);

} // namespace muffle
