using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Projects;
using Falzkunst.Formats.Svg;

namespace Falzkunst.Formats.Tests;

/// <summary>The small files beside the tests.</summary>
internal static class ArtFile
{
    public static Drawing Read(string name) => ArtReader.Read(File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Art", name + ".svg")));

    public static Drawing Parse(string svg) => ArtReader.Read(System.Text.Encoding.UTF8.GetBytes(svg));

    public static Design Assemble(Drawing drawing, params LookRule[] rules) =>
        Assembler.Assemble(drawing, rules, new Drawer(SeedCatalogue.Stocks, SeedCatalogue.Machines).StockFor);
}
