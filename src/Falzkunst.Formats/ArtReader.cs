using Falzkunst.Core.Designs;
using Falzkunst.Formats.Dxf;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats;

/// <summary>Reads art by what is in the file, not by its name.</summary>
public static class ArtReader
{
    /// <summary>Reads an SVG or a DXF file.</summary>
    /// <exception cref="ReadRefused">The file is neither, or is not read; what is read in part is in the drawing's notes.</exception>
    public static Drawing Read(ReadOnlyMemory<byte> file, ReadLimits? limits = null) =>
        DxfTags.LooksLikeDxf(file.Span) ? DxfReader.Read(file, limits) : SvgReader.Read(file, limits);
}
