// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"

#include <cerrno>
#include <iostream>
#include <streambuf>
#include <system_error>
#include <unistd.h>

namespace {

/// Standard output that remembers why it could not be written; std::cout only knows that.
class Output : public std::streambuf {
public:
    Output() { setp(buffer_, buffer_ + sizeof buffer_); }
    int error() const { return error_; }

protected:
    int overflow(int c) override {
        if (sync() != 0) return traits_type::eof();
        if (c != traits_type::eof()) {
            *pptr() = static_cast<char>(c);
            pbump(1);
        }
        return 0;
    }
    int sync() override {
        for (const char* at = pbase(); at < pptr() && error_ == 0;) {
            const ssize_t n = ::write(STDOUT_FILENO, at, static_cast<std::size_t>(pptr() - at));
            if (n > 0)
                at += n;
            else if (n == 0 || errno != EINTR)
                error_ = n == 0 ? EIO : errno;
        }
        setp(buffer_, buffer_ + sizeof buffer_);
        return error_ == 0 ? 0 : -1;
    }

private:
    char buffer_[1 << 14];
    int error_ = 0;
};

} // namespace

int main(int argc, char** argv) {
    Output output;
    std::ostream out(&output);
    if (::isatty(STDOUT_FILENO) != 0) out << std::unitbuf; // a person reads along
    const int code = gantry::cli::run({argv + 1, argv + argc}, out, std::cerr);
    out.flush();
    if (output.error() == 0) return code;
    // A result that is cut off must not pass for one.
    std::cerr << "The output could not be written: " << std::generic_category().message(output.error())
              << ".\n";
    return gantry::cli::outputFailed;
}
