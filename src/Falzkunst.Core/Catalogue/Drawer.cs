using System.Collections.Immutable;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Catalogue;

/// <summary>Stocks and machines at hand.</summary>
public sealed record Drawer(ImmutableArray<Stock> Stocks, ImmutableArray<Machine> Machines)
{
    /// <summary>Pens, foils, tips and blades.</summary>
    public ImmutableArray<CraftTool> Tools { get; init; } = [];

    /// <summary>Faces that were brought in; those that ship are not among them.</summary>
    public ImmutableArray<FaceName> OwnFaces { get; init; } = [];

    /// <summary>Faces that words can be set in; none until somebody puts them here who can read faces.</summary>
    public IFaces Faces { get; init; } = NoFaces.Instance;

    /// <summary>The stocks that are offered, favourites first.</summary>
    public IEnumerable<Stock> Offered => Stocks.Where(s => !s.IsPutAway).OrderByDescending(s => s.IsFavourite);

    /// <summary>The machines that are offered.</summary>
    public IEnumerable<Machine> OfferedMachines => Machines.Where(m => !m.IsPutAway);

    /// <summary>The tools of some kind that are offered.</summary>
    public IEnumerable<CraftTool> OfferedTools(CraftToolKind kind) => Tools.Where(t => t.Kind == kind && !t.IsPutAway);

    /// <exception cref="EditRefused">There is none of that name.</exception>
    public Stock Stock(string key) => Stocks.FirstOrDefault(s => s.Key == key)
        ?? throw new EditRefused(Reason.NoSuchStock, key) { Field = "stock" };

    /// <summary>The colour of a stock, #rrggbb; a pale grey for one that is not in the drawer.</summary>
    public string ColourOf(string stock) => Stocks.FirstOrDefault(s => s.Key == stock)?.Colour ?? "#DDDDDD";

    /// <exception cref="EditRefused">There is none of that name.</exception>
    public Machine Machine(string key) => Machines.FirstOrDefault(m => m.Key == key)
        ?? throw new EditRefused(Reason.NoSuchMachine, key) { Field = "machine" };

    /// <summary>The stock whose colour comes nearest to a fill; for unfilled art the lightest one.</summary>
    public string StockFor(string? fill)
    {
        return (Stocks.All(s => s.IsPutAway) ? Stocks : Stocks.Where(s => !s.IsPutAway)).MinBy(s => StockColours.Difference(s.Colour, fill ?? "#F3EEE1"))?.Key ?? "";
    }
}
