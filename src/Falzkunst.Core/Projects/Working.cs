using System.Collections.Immutable;
using Falzkunst.Core.Designs;

namespace Falzkunst.Core.Projects;

/// <summary>How lines are worked: manner, ink, and look rules applied to what is there.</summary>
public static class Working
{
    public const double LeastTipMm = 0.05;
    public const double MostTipMm = 20;
    public const int MostTimes = 20;

    /// <exception cref="EditRefused">A number is out of reach, or the lines are gone.</exception>
    public static Piece With(Piece piece, ImmutableArray<string> lines, Manner manner)
    {
        Check(manner);
        return piece.With(piece.Require(lines), l => l.With(manner));
    }

    /// <exception cref="EditRefused">Not a colour, or the lines have neither pen nor foil.</exception>
    public static Piece With(Piece piece, ImmutableArray<string> lines, string ink)
    {
        if (!IsColour(ink)) throw new EditRefused("A colour is written as # and six digits, such as #7B4BA8.");
        var at = piece.Require(lines);
        if (at.Any(i => piece.Lines[i].Operation is not (Operation.Draw or Operation.Foil)))
            throw new EditRefused("Only drawn and foiled lines have a colour of their own.");
        return piece.With(at, l => l with { Ink = ink.ToUpperInvariant() });
    }

    /// <summary>The design with every line as the first rule that fits it says.</summary>
    public static Design With(Design design, ApplyRules edit) => design with
    {
        Pieces = [.. design.Pieces.Select(p => edit.Art is { } art && p.Art != art ? p : With(p, edit.Rules))],
        Loose = [.. design.Loose.Select(l => RuleFor(edit.Rules, l.Line.Look) is { } rule ? l with { Line = rule.Give(l.Line) } : l)],
    };

    /// <summary>How many lines each rule would change in a design, in the rules' order.</summary>
    public static ImmutableArray<int> Changes(Design design, ImmutableArray<LookRule> rules)
    {
        var counts = new int[rules.Length];
        foreach (var line in design.Pieces.SelectMany(p => p.Lines))
        {
            if (RuleFor(rules, line.Look) is { } rule && rule.Give(line) != line) counts[rules.IndexOf(rule)]++;
        }
        return [.. counts];
    }

    private static LookRule? RuleFor(ImmutableArray<LookRule> rules, Look look) => rules.FirstOrDefault(r => r.Fits(look));

    private static Piece With(Piece piece, ImmutableArray<LookRule> rules)
    {
        var lines = piece.Lines.Select(l => RuleFor(rules, l.Look)?.Give(l) ?? l).ToImmutableArray();
        return lines.SequenceEqual(piece.Lines) ? piece : piece with { Lines = lines };
    }

    private static bool IsColour(string ink) => ink.Length == 7 && ink[0] == '#' && ink.Skip(1).All(char.IsAsciiHexDigit);

    private static void Check(Manner manner)
    {
        void Between(double? value, double least, double most, string what)
        {
            if (value is { } v && !(v >= least && v <= most)) throw new EditRefused(FormattableString.Invariant($"{what} is between {least} and {most}."));
        }
        Between(manner.TipMm, LeastTipMm, MostTipMm, "A tip's width in mm");
        Between(manner.Dashes?.DashMm, PerforationDashes.LeastMm, PerforationDashes.MostMm, "A dash in mm");
        Between(manner.Dashes?.GapMm, PerforationDashes.LeastMm, PerforationDashes.MostMm, "A gap in mm");
        Between(manner.Fill?.DistanceMm, AreaFill.LeastMm, AreaFill.MostMm, "The distance of strokes in mm");
        Between(manner.Fill?.AngleDegrees, -360, 360, "The angle of strokes in degrees");
        Between(manner.Settings?.ForceGrams, 1, 5000, "The force in grams");
        Between(manner.Settings?.SpeedMmPerSecond, 1, 2000, "The speed in mm/s");
        Between(manner.Settings?.BladeOutMm, 0.01, 10, "The blade's length out in mm");
        Between(manner.Settings?.TemperatureCelsius, 30, 300, "The heat in °C");
        Between(manner.Settings?.Times, 1, MostTimes, "Times over");
    }
}
