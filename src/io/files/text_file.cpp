// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/files/text_file.h"

#include "core/units/plain_text.h"

#include <filesystem>
#include <fstream>

namespace gantry::io {

std::optional<std::string> readTextFile(const std::string& path, std::size_t largest, std::string& error) {
    const std::string shown = "“" + units::plainText(path) + "”";
    std::error_code ec;
    const std::filesystem::file_status status = std::filesystem::status(path, ec);
    if (std::filesystem::is_directory(status)) {
        error = shown + " is a folder. Name a file.";
        return std::nullopt;
    }
    // A pipe or a device may never end, or wait for somebody who does not come.
    if (std::filesystem::exists(status) && !std::filesystem::is_regular_file(status)) {
        error = shown + " is not an ordinary file. Write its content to a file and name that.";
        return std::nullopt;
    }
    std::ifstream in(path, std::ios::binary);
    if (!in) {
        error = shown + " cannot be read. Check that it exists and that you may open it.";
        return std::nullopt;
    }
    std::string text, chunk(64u << 10, '\0');
    while (text.size() <= largest && in) {
        in.read(chunk.data(), static_cast<std::streamsize>(chunk.size()));
        text.append(chunk, 0, static_cast<std::size_t>(in.gcount()));
    }
    if (in.bad()) {
        error = shown + " cannot be read to its end: the disk reports an error.";
        return std::nullopt;
    }
    if (text.size() > largest) {
        const bool whole = largest >= 1u << 20;
        error = shown + " is larger than " + std::to_string(whole ? largest >> 20 : largest >> 10) +
                (whole ? " MiB" : " KiB") + ". Is it the right file?";
        return std::nullopt;
    }
    return text;
}

} // namespace gantry::io
