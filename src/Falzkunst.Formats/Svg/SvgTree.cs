using System.Text;
using System.Xml;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// Reads the file into a tree. Nothing outside the file is ever fetched; entities declared in the file itself are allowed up
/// to a limit, since drawing programs use them for namespaces.
/// </summary>
internal static class SvgTree
{
    private const string SvgNamespace = "http://www.w3.org/2000/svg";

    /// <exception cref="ReadRefused">The file is too large, too deep, not XML or not SVG.</exception>
    public static SvgNode Read(ReadOnlyMemory<byte> file, ReadLimits limits, CancellationToken time)
    {
        if (file.Length > limits.Bytes)
            throw new ReadRefused("too-large", $"The file has {file.Length / 1e6:0.0} MB; up to {limits.Bytes / 1048576} MB are read. Take out embedded pictures and save it again.");
        if (file.Span.IndexOf("svg"u8) < 0 && file.Span.IndexOf("s\0v\0g"u8) < 0)
            throw new ReadRefused("not-svg", "This is neither an SVG nor a DXF file. Save the drawing as one of them and try again.");
        var settings = new XmlReaderSettings
        {
            DtdProcessing = DtdProcessing.Parse,
            XmlResolver = null,
            MaxCharactersFromEntities = limits.EntityCharacters,
            IgnoreComments = true,
            IgnoreProcessingInstructions = true,
        };
        try
        {
            using var reader = XmlReader.Create(new System.IO.MemoryStream(file.ToArray(), writable: false), settings);
            return Read(reader, limits, time) ?? throw new ReadRefused("not-svg", "The file holds no svg element. Save the drawing as SVG and try again.");
        }
        catch (XmlException e) when (e.Message.Contains("MaxCharactersFromEntities", StringComparison.Ordinal))
        {
            throw new ReadRefused("too-much-expansion", "The file's entities grow beyond what is read. Save it as plain SVG and try again.");
        }
        catch (XmlException e)
        {
            throw new ReadRefused("not-xml", $"The file is damaged at line {e.LineNumber}, character {e.LinePosition}: it is not well-formed XML. Save it again from the drawing program.");
        }
        catch (ArgumentException)
        {
            throw new ReadRefused("not-xml", "The file names a text encoding that is not known. Save it as UTF-8.");
        }
    }

    private static SvgNode? Read(XmlReader reader, ReadLimits limits, CancellationToken time)
    {
        SvgNode? root = null, at = null;
        var text = new StringBuilder();
        var elements = 0;
        while (reader.Read())
        {
            switch (reader.NodeType)
            {
                case XmlNodeType.Element:
                    if ((++elements & 1023) == 0) Checks.Time(time);
                    if (elements > limits.Elements) throw new ReadRefused("too-many-elements", $"The file has more than {limits.Elements:N0} elements. Split the drawing into parts.");
                    if (reader.Depth > limits.Depth) throw new ReadRefused("too-deep", $"Groups lie in each other more than {limits.Depth} deep. Ungroup the drawing and save it again.");
                    var node = new SvgNode(reader.LocalName, reader.NamespaceURI is SvgNamespace or "", at, ((IXmlLineInfo)reader).LineNumber);
                    var isEmpty = reader.IsEmptyElement;
                    if (root is null && (node.Name != "svg" || !node.IsSvg)) return null;
                    while (reader.MoveToNextAttribute())
                    {
                        if (reader.Prefix != "xmlns" && reader.Name != "xmlns") node.Add(reader.LocalName, reader.NamespaceURI.Length > 0, reader.Value);
                    }
                    at?.Children.Add(node);
                    root ??= node;
                    if (!isEmpty) at = node;
                    text.Clear();
                    break;
                case XmlNodeType.Text or XmlNodeType.CDATA when at is { Name: "style" }:
                    text.Append(reader.Value);
                    break;
                case XmlNodeType.EndElement:
                    if (at is { Name: "style" }) at.Text = text.ToString();
                    text.Clear();
                    at = at?.Parent;
                    break;
            }
        }
        return root;
    }
}
