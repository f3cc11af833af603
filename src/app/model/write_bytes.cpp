// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/model/write_bytes.h"

#include "io/files/checked_writer.h"

#include <QBuffer>
#include <QCoreApplication>
#include <QFile>
#include <QImage>

namespace gantry::app {

QString writeBytes(const QString& path, const QByteArray& bytes) {
    const io::WriteResult result = io::writeFile(
        {QFile::encodeName(path).toStdString(),
         std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())), false, std::nullopt});
    return QString::fromStdString(result.sentence);
}

QString writePng(const QString& path, const QImage& image) {
    QBuffer buffer;
    if (!buffer.open(QIODevice::WriteOnly) || !image.save(&buffer, "PNG"))
        return QCoreApplication::translate("writePng", "The picture for “%1” cannot be made.").arg(path);
    return writeBytes(path, buffer.data());
}

} // namespace gantry::app
