using System.Collections.Immutable;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Projects;

/// <summary>Pieces kept aside under a name.</summary>
/// <param name="Number">Its number in the project; never used again.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Of">Id of the piece that it is another form of; null for the whole design.</param>
/// <param name="Pieces">The piece, or all pieces, lowest first.</param>
public sealed record Variant(int Number, string Name, string? Of, ImmutableArray<Piece> Pieces)
{
    /// <summary>A project keeps at most this many aside.</summary>
    public const int Most = 40;
}

/// <summary>Keeping variants and taking them up.</summary>
public static class Variants
{
    /// <summary>Keeps a piece, or the whole design, as it is now.</summary>
    /// <exception cref="EditRefused">There is nothing to keep, or too much is kept already.</exception>
    public static Project Keep(Project project, string? piece, string name) =>
        Keep(project, piece, name, piece is null ? project.Design.Pieces : [project.Design.Require(piece)]);

    /// <summary>Keeps another form of a piece than the present one.</summary>
    /// <inheritdoc cref="Keep(Project, string?, string)"/>
    public static Project Keep(Project project, string piece, string name, Piece form) => Keep(project, piece, name, [form]);

    private static Project Keep(Project project, string? piece, string name, ImmutableArray<Piece> pieces)
    {
        if (project.Variants.Length >= Variant.Most) throw new EditRefused(Reason.VariantsFull, Variant.Most);
        if (string.IsNullOrWhiteSpace(name) || name.Length > NameLimits.Piece) throw EditRefused.Range(Measure.NameLength, 1, NameLimits.Piece, "name");
        if (pieces.IsEmpty) throw new EditRefused(Reason.NothingToKeep);
        var number = 1 + project.Variants.Select(v => v.Number).DefaultIfEmpty().Max();
        return project with { Variants = project.Variants.Add(new Variant(number, name.Trim(), piece, pieces)) };
    }

    /// <summary>Puts a variant where its original is; the original is kept aside in its place.</summary>
    /// <exception cref="EditRefused">The variant is gone.</exception>
    public static Project Take(Project project, int number)
    {
        var variant = Require(project, number);
        var design = project.Design;
        var place = project.Variants.IndexOf(variant);
        if (variant.Of is null)
        {
            var former = variant with { Name = "Before: " + Cut(variant.Name), Pieces = design.Pieces };
            return Swap(design with { Pieces = [.. variant.Pieces.Select(p => Continuing(p, design.Find(p.Id)))] }, former);
        }
        if (design.Find(variant.Of) is not { } now)
            return Swap(design with { Pieces = design.Pieces.Add(variant.Pieces[0]) }, null);
        return Swap(design with { Pieces = design.Pieces.Replace(now, Continuing(variant.Pieces[0] with { Id = now.Id }, now)) }, variant with { Name = "Before: " + Cut(variant.Name), Pieces = [now] });

        Project Swap(Design after, Variant? former) => project with
        {
            Design = after,
            Variants = former is null ? project.Variants.RemoveAt(place) : project.Variants.SetItem(place, former),
        };
    }

    public static Project Drop(Project project, int number) => project with { Variants = project.Variants.Remove(Require(project, number)) };

    private static Variant Require(Project project, int number) => project.Variants.FirstOrDefault(v => v.Number == number)
        ?? throw new EditRefused(Reason.VariantGone);

    private static string Cut(string name) => name.StartsWith("Before: ", StringComparison.Ordinal) ? name[8..] : name;

    /// <summary>A piece in the place of its other form: items get ids that neither of them has used.</summary>
    private static Piece Continuing(Piece piece, Piece? former) =>
        former is not null && former.NextItem > piece.NextItem ? piece with { NextItem = former.NextItem } : piece;
}
