// SPDX-License-Identifier: GPL-3.0-or-later
//
// Of JSON documents.
#include "words/tables.h"

namespace muffle {
namespace {

constexpr WordsOf kJson[] = {
    {"json.document-bytes", "the document has {} bytes"},
    {"json.at-most", "at most {} are allowed"},
    {"json.nested-deep", "nested {} deep"},
    {"json.object-more-than-keys", "an object of more than {} keys"},
    {"json.not-valid-json-column", "not valid JSON at column {}"},
    {"json.expected-one-json-document", "expected one JSON document in UTF-8"},
    {"json.not-valid-json-text", "not valid JSON text"},
    {"json.object", "an object"},
    {"json.not-known", "\"{}\" is not known here"},
    {"json.missing", "\"{}\" is missing"},
    {"json.stands-here", "{} stands here"},
    {"json.list-needed", "a list [...] is needed"},
    {"json.entries", "{} entries"},
    {"json.is", "{} is {}"},
    {"json.number-from-needed", "a number from {} to {} is needed"},
    {"json.allowed", "allowed is {} to {}"},
    {"json.whole-number-needed", "a whole number is needed"},
    {"json.true-false-needed", "true or false is needed"},
    {"json.text-quotes-needed", "text in quotes is needed"},
    {"json.too-long", "{} is too long"},
    {"json.text-at-most", "at most 2000 characters are allowed"},
    {"json.not-format", "{} is not this format"},
    {"json.text-needed-is", "\"{}\" is needed"},
    {"json.use-one", "use one of: {}"},
    {"json.object-needed", "an object {...} is needed"},
    {"json.text-needed", "a text is needed"},
    {"json.whole-number-from-needed", "a whole number from {} is needed"},
    {"json.whole-number-from-to", "a whole number from {} to {} is needed"},
    {"json.list-of", "a list of {} is needed"},
    {"json.is-missing", "this is missing"},
    {"json.is-needed", "it is needed here"},
    {"json.list", "a list"},
    {"json.known", "known: {}"},
    {"json.no-such-choice", "{} is not a known {}"},
    {"json.object-of-schema", "an object with \"schema\": \"{}\" is needed"},
};

} // namespace

std::span<const WordsOf> jsonWords() { return kJson; }

} // namespace muffle
