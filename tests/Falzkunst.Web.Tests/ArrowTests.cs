using System.Reflection;
using System.Xml.Linq;
using Falzkunst.Core.Geometry;
using Falzkunst.Data;
using Falzkunst.Formats;
using NetArchTest.Rules;
using Path = System.IO.Path;

namespace Falzkunst.Web.Tests;

/// <summary>The rooms of the house know each other one way, as docs/architecture.md has it.</summary>
public sealed class ArrowTests
{
    /// <summary>What each room of an assembly may know of the others in it.</summary>
    private static readonly Dictionary<Assembly, Dictionary<string, string[]>> Rooms = new()
    {
        [typeof(Point).Assembly] = new()
        {
            ["Budgets"] = [],
            ["Refusals"] = [],
            ["Measures"] = [],
            ["Geometry"] = ["Budgets"],
            ["Texts"] = ["Budgets", "Geometry"],
            ["Pictures"] = ["Budgets", "Geometry", "Refusals"],
            ["Tracing"] = ["Budgets", "Geometry", "Pictures"],
            ["Catalogue"] = ["Geometry", "Pictures", "Refusals", "Texts"],
            ["Designs"] = ["Budgets", "Catalogue", "Geometry", "Pictures", "Refusals", "Texts", "Tracing"],
            ["Building"] = ["Budgets", "Catalogue", "Designs", "Geometry", "Refusals", "Texts", "Tracing"],
            ["Detail"] = ["Budgets", "Catalogue", "Designs", "Geometry", "Refusals", "Texts"],
            ["Nesting"] = ["Budgets", "Catalogue", "Designs", "Geometry", "Refusals", "Texts"],
            ["Printing"] = ["Budgets", "Catalogue", "Designs", "Geometry", "Pictures", "Refusals", "Texts", "Tracing"],
            ["Running"] = ["Budgets", "Catalogue", "Designs", "Geometry", "Pictures", "Printing", "Refusals", "Texts"],
            ["Projects"] = ["Building", "Catalogue", "Designs", "Geometry", "Measures", "Printing", "Refusals", "Texts"],
            ["Editing"] = ["Budgets", "Building", "Catalogue", "Designs", "Detail", "Geometry", "Measures", "Nesting", "Pictures", "Printing", "Projects", "Refusals", "Texts", "Tracing"],
            ["Actions"] = ["Building", "Catalogue", "Designs", "Detail", "Editing", "Geometry", "Measures", "Printing", "Projects", "Refusals", "Texts"],
            ["Commands"] = ["Actions", "Building", "Catalogue", "Designs", "Detail", "Editing", "Geometry", "Measures", "Projects", "Refusals", "Texts"],
        },
        [typeof(ArtReader).Assembly] = new()
        {
            ["Dxf"] = [],
            ["Svg"] = [],
            ["Fonts"] = ["Svg"],
            ["Nesting"] = [],
            ["Production"] = ["Svg"],
            ["Pictures"] = [],
            ["Wire"] = ["Fonts", "Pictures"],
            ["Archive"] = [],
            ["Pdf"] = ["Production"],
        },
        [typeof(FalzkunstDb).Assembly] = new()
        {
            ["Rows"] = [],
            ["Json"] = [],
            ["Jobs"] = ["Json", "Rows"],
            ["Projects"] = ["Json", "Rows"],
            ["Runs"] = ["Json", "Projects", "Rows"],
            ["Workshop"] = ["Json", "Rows"],
        },
        [typeof(Program).Assembly] = new()
        {
            ["Security"] = [],
            ["Reading"] = [],
            ["Wording"] = [],
            ["Jobs"] = [],
            ["Pictures"] = ["Desk", "Wording"],
            ["Tray"] = [],
            ["Binding"] = ["Wording"],
            ["Practice"] = [],
            ["Desk"] = ["Jobs", "Reading", "Wording"],
            ["Demo"] = ["Desk"],
            ["LightTable"] = ["Desk", "Wording"],
            ["Pages"] = ["Binding", "Desk", "Jobs", "LightTable", "Pictures", "Tray", "Wording"],
        },
    };

    public static TheoryData<string, string> All()
    {
        var all = new TheoryData<string, string>();
        foreach (var (assembly, rooms) in Rooms)
        {
            foreach (var room in rooms.Keys) all.Add(assembly.GetName().Name!, room);
        }
        return all;
    }

    [Theory]
    [MemberData(nameof(All))]
    public void A_room_knows_no_more_than_it_may(string name, string room)
    {
        var (assembly, rooms) = Rooms.Single(r => r.Key.GetName().Name == name);
        var forbidden = rooms.Keys.Except(rooms[room]).Except([room]).Select(r => $"{name}.{r}").ToArray();
        var result = Types.InAssembly(assembly).That().ResideInNamespaceMatching($"^{name}\\.{room}(\\.|$)").ShouldNot().HaveDependencyOnAny(forbidden).GetResult();
        Assert.True(result.IsSuccessful, $"{name}.{room} knows what it must not: {string.Join(", ", result.FailingTypeNames ?? [])}");
    }

    [Fact]
    public void Every_room_is_told_here()
    {
        foreach (var (assembly, rooms) in Rooms)
        {
            var name = assembly.GetName().Name!;
            var found = assembly.GetTypes().Select(t => t.Namespace).OfType<string>().Where(n => n.StartsWith($"{name}.", StringComparison.Ordinal))
                .Select(n => n[(name.Length + 1)..].Split('.')[0]).Where(n => n != "Migrations").Distinct().Order();
            Assert.Equal(rooms.Keys.Order(), found);
        }
    }

    /// <summary>Core knows nobody; the projects are named by those above them.</summary>
    [Fact]
    public void Projects_know_each_other_one_way()
    {
        var allowed = new Dictionary<string, string[]>
        {
            ["Core"] = [],
            ["Formats"] = ["Core"],
            ["Data"] = ["Core"],
            ["Reader"] = ["Formats"],
            ["Lab"] = ["Core", "Formats"],
            ["Web"] = ["Core", "Data", "Formats", "Reader"],
        };
        var sources = Path.Combine(Root(), "src");
        foreach (var (project, may) in allowed)
        {
            var file = XDocument.Load(Path.Combine(sources, $"Falzkunst.{project}", $"Falzkunst.{project}.csproj"));
            var known = file.Descendants("ProjectReference").Select(r => Path.GetFileNameWithoutExtension((string)r.Attribute("Include")!)["Falzkunst.".Length..]);
            Assert.Empty(known.Except(may));
        }
        Assert.Equal(allowed.Keys.Order(), Directory.GetDirectories(sources).Select(d => Path.GetFileName(d)["Falzkunst.".Length..]).Order());
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!folder.EnumerateFiles("Falzkunst.slnx").Any()) folder = folder.Parent ?? throw new InvalidOperationException("The tests lie outside the project.");
        return folder.FullName;
    }
}
