using System.Text;
using System.Xml;
using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Svg;

/// <summary>
/// Reads the file into a tree. Nothing outside the file is ever fetched; entities declared in the file itself are allowed up
/// to a limit, since drawing programs use them for namespaces.
/// </summary>
internal static class SvgTree
{
    private const string SvgNamespace = "http://www.w3.org/2000/svg";

    /// <summary>Characters that entities of the document may grow to.</summary>
    private const long MostEntityCharacters = 1_000_000;

    /// <exception cref="ReadRefused">The file is not XML or not SVG.</exception>
    /// <exception cref="BudgetSpent">It is too deep, or has too many elements.</exception>
    public static SvgNode Read(ReadOnlyMemory<byte> file, Budget budget)
    {
        if (file.Span.IndexOf("svg"u8) < 0 && file.Span.IndexOf("s\0v\0g"u8) < 0)
            throw new ReadRefused("not-svg", "This is neither an SVG nor a DXF file. Save the drawing as one of them and try again.");
        var settings = new XmlReaderSettings
        {
            DtdProcessing = DtdProcessing.Parse,
            XmlResolver = null,
            MaxCharactersFromEntities = MostEntityCharacters,
            IgnoreComments = true,
            IgnoreProcessingInstructions = true,
        };
        try
        {
            using var reader = XmlReader.Create(new System.IO.MemoryStream(file.ToArray(), writable: false), settings);
            return Read(reader, budget) ?? throw new ReadRefused("not-svg", "The file holds no svg element. Save the drawing as SVG and try again.");
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

    private static SvgNode? Read(XmlReader reader, Budget budget)
    {
        SvgNode? root = null, at = null;
        var text = new StringBuilder();
        while (reader.Read())
        {
            switch (reader.NodeType)
            {
                case XmlNodeType.Element:
                    budget.Element();
                    budget.Deep(reader.Depth);
                    var node = new SvgNode(reader.LocalName, reader.NamespaceURI is SvgNamespace or "", at, ((IXmlLineInfo)reader).LineNumber);
                    var isEmpty = reader.IsEmptyElement;
                    if (root is null && (node.Name != "svg" || !node.IsSvg)) return null;
                    while (reader.MoveToNextAttribute())
                    {
                        budget.Work(10 + reader.Value.Length / 8);
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
                case XmlNodeType.Text or XmlNodeType.CDATA or XmlNodeType.Whitespace or XmlNodeType.SignificantWhitespace when at is { IsSvg: true, Name: "text" or "tspan" or "textPath" or "a" } && IsInText(at):
                    budget.Element();
                    budget.Work(10 + reader.Value.Length / 8);
                    at.Children.Add(new SvgNode(SvgNode.Written, true, at, ((IXmlLineInfo)reader).LineNumber) { Text = reader.Value });
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

    private static bool IsInText(SvgNode node)
    {
        for (var n = node; n is not null; n = n.Parent)
        {
            if (n.Name == "text") return true;
        }
        return false;
    }
}
