// SPDX-License-Identifier: GPL-3.0-or-later
#include "io/text_file.h"

#include <filesystem>
#include <fstream>

namespace gantry::io {

std::optional<std::string> readTextFile(const std::string& path, std::size_t largest, std::string& error) {
    std::error_code ec;
    if (std::filesystem::is_directory(path, ec)) {
        error = "“" + path + "” is a folder. Name a file.";
        return std::nullopt;
    }
    std::ifstream in(path, std::ios::binary);
    if (!in) {
        error = "“" + path + "” cannot be read. Check that it exists and that you may open it.";
        return std::nullopt;
    }
    std::string text, chunk(64u << 10, '\0');
    while (text.size() <= largest && in) {
        in.read(chunk.data(), static_cast<std::streamsize>(chunk.size()));
        text.append(chunk, 0, static_cast<std::size_t>(in.gcount()));
    }
    if (text.size() > largest) {
        error =
            "“" + path + "” is larger than " + std::to_string(largest >> 20) + " MiB. Is it the right file?";
        return std::nullopt;
    }
    return text;
}

} // namespace gantry::io
