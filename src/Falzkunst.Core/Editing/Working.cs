using System.Collections.Immutable;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>How lines are worked: settings, ink, and look rules applied to what is there.</summary>
public static class Working
{
    public const double LeastTipMm = 0.05;
    public const double MostTipMm = 20;
    public const int MostTimes = 20;

    /// <summary>The design with lines changed, on whichever pieces they lie.</summary>
    /// <exception cref="EditRefused">Some of them are not there.</exception>
    public static Design Each(Design design, ImmutableArray<PickedLines> lines, Func<WorkedItem, WorkedItem> change)
    {
        if (lines.IsDefaultOrEmpty) throw new EditRefused(Reason.LinesOnly);
        var byPiece = lines.GroupBy(l => l.Piece).ToDictionary(g => g.Key, g => g.SelectMany(l => l.Ids).ToHashSet());
        var found = 0;
        var changed = design with { Pieces = [.. design.Pieces.Select(Change)] };
        return found == byPiece.Count ? changed : throw new EditRefused(Reason.PieceGone);

        Piece Change(Piece piece)
        {
            if (!byPiece.TryGetValue(piece.Id, out var ids)) return piece;
            piece.RequireWorked([.. ids]);
            found++;
            return piece.EachWorked(ids, change);
        }
    }

    /// <summary>The same for lines that have paths of their own.</summary>
    /// <exception cref="EditRefused">Some of them are not there, or follow from something else.</exception>
    public static Design EachLine(Design design, ImmutableArray<PickedLines> lines, Func<Line, Line> change) =>
        Each(design, lines, item => item is Line line ? change(line) : throw new EditRefused(Reason.FollowsEdge));

    /// <summary>The design with some parts of how lines are worked changed, and no other.</summary>
    /// <exception cref="EditRefused">A number is out of reach, the lines are gone, or an area would have too many strokes.</exception>
    public static Design With(Design design, ChangeLineSettings edit)
    {
        Check(edit.To);
        var changed = Each(design, edit.Lines, l => l.With(Changed(l.EffectiveSettings, edit)));
        if (edit.Parts.Any(p => p is LineSettingsPart.Fill or LineSettingsPart.FillDistance or LineSettingsPart.FillAngle or LineSettingsPart.Tip))
        {
            foreach (var lines in edit.Lines) AreaFills.DemandFit(changed.Require(lines.Piece));
        }
        return changed;
    }

    /// <exception cref="EditRefused">A number is out of reach, it is no colour, or the lines are gone.</exception>
    public static Design With(Design design, PrintLines edit)
    {
        var settings = new LineSettings { Print = edit.Look };
        Check(settings);
        return Each(design, edit.Lines, l =>
        {
            var printed = l.Operation == Operation.Print ? l : l.With(Operation.Print);
            return printed.With(printed.EffectiveSettings with { Print = edit.Look });
        });
    }

    /// <exception cref="EditRefused">Not a colour, or the lines have neither pen nor foil.</exception>
    public static Design With(Design design, SetInk edit)
    {
        if (!StockColours.IsColour(edit.Ink)) throw new EditRefused(Reason.NotAColour) { Field = "ink" };
        var ink = edit.Ink.ToUpperInvariant();
        return Each(design, edit.Lines, l => l.Operation is Operation.Draw or Operation.Foil ? l with { Ink = ink } : throw new EditRefused(Reason.NoInk));
    }

    /// <exception cref="EditRefused">The lines have neither pen nor foil, or a number is out of reach.</exception>
    public static Design With(Design design, UseTool edit)
    {
        var inked = edit.Ink is { } ink ? With(design, new SetInk(edit.Lines, ink)) : design;
        return edit.TipMm is { } tip ? With(inked, new ChangeLineSettings(edit.Lines, [LineSettingsPart.Tip], new LineSettings { TipMm = tip })) : inked;
    }

    private static LineSettings Changed(LineSettings now, ChangeLineSettings edit)
    {
        var to = edit.To;
        foreach (var part in edit.Parts)
        {
            now = part switch
            {
                LineSettingsPart.Fold => now with { Fold = to.Fold },
                LineSettingsPart.HalfCut => now with { HalfCut = to.HalfCut },
                LineSettingsPart.FromBack => now with { FromBack = to.FromBack },
                LineSettingsPart.LeftOut => now with { LeftOut = to.LeftOut },
                LineSettingsPart.Dash => now with { Dashes = Plain((now.Dashes ?? PerforationDashes.Usual) with { DashMm = (to.Dashes ?? PerforationDashes.Usual).DashMm }) },
                LineSettingsPart.Gap => now with { Dashes = Plain((now.Dashes ?? PerforationDashes.Usual) with { GapMm = (to.Dashes ?? PerforationDashes.Usual).GapMm }) },
                LineSettingsPart.Print => now with { Print = to.Print },
                LineSettingsPart.Hold => now with { Hold = to.Hold },
                LineSettingsPart.Tip => now with { TipMm = to.TipMm },
                LineSettingsPart.Fill => now with { Fill = to.Fill is { } fill ? (now.Fill ?? new AreaFill(fill.Pattern)) with { Pattern = fill.Pattern } : null },
                LineSettingsPart.FillDistance => now with { Fill = now.Fill is { } fill ? fill with { DistanceMm = to.Fill?.DistanceMm } : null },
                LineSettingsPart.FillAngle => now with { Fill = now.Fill is { } fill ? fill with { AngleDegrees = to.Fill?.AngleDegrees ?? AreaFill.UsualAngleDegrees } : null },
                _ => now with { Tool = Changed(now.Tool ?? new(), part, to.Tool ?? new()) },
            };
        }
        return now;
    }

    private static ToolSettingsChange? Changed(ToolSettingsChange now, LineSettingsPart part, ToolSettingsChange to)
    {
        var changed = part switch
        {
            LineSettingsPart.Force => now with { ForceGrams = to.ForceGrams },
            LineSettingsPart.Speed => now with { SpeedMmPerSecond = to.SpeedMmPerSecond },
            LineSettingsPart.BladeOut => now with { BladeOutMm = to.BladeOutMm },
            LineSettingsPart.Temperature => now with { TemperatureCelsius = to.TemperatureCelsius },
            LineSettingsPart.Times => now with { Times = to.Times },
            _ => throw new ArgumentOutOfRangeException(nameof(part)),
        };
        return changed == new ToolSettingsChange() ? null : changed;
    }

    private static PerforationDashes? Plain(PerforationDashes dashes) => dashes == PerforationDashes.Usual ? null : dashes;

    /// <summary>The design with every line as the first rule that fits it says.</summary>
    public static Design With(Design design, ApplyRules edit) => design with
    {
        Pieces = [.. design.Pieces.Select(p => edit.Art is { } art && p.Art != art ? p : With(p, edit.Rules))],
        Loose = [.. design.Loose.Select(l => RuleFor(edit.Rules, l.Look) is { } rule ? (Line)rule.Give(l) : l)],
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

    private static Piece With(Piece piece, ImmutableArray<LookRule> rules) =>
        piece.EachWorked(item => item is Line line && RuleFor(rules, line.Look) is { } rule ? rule.Give(line) : item);

    /// <exception cref="EditRefused">A number is out of reach, or something is no colour.</exception>
    internal static void Check(LineSettings settings)
    {
        static void Between(double? value, double least, double most, Measure measure, string field)
        {
            if (value is { } v && !(v >= least && v <= most)) throw EditRefused.Range(measure, least, most, field);
        }
        static void BetweenMm(double? value, double least, double most, Measure measure, string field)
        {
            if (value is { } v && !(v >= least && v <= most)) throw EditRefused.RangeMm(measure, least, most, field);
        }
        BetweenMm(settings.TipMm, LeastTipMm, MostTipMm, Measure.TipWidth, "width");
        BetweenMm(settings.Dashes?.DashMm, PerforationDashes.LeastMm, PerforationDashes.MostMm, Measure.Dash, "dash");
        BetweenMm(settings.Dashes?.GapMm, PerforationDashes.LeastMm, PerforationDashes.MostMm, Measure.DashGap, "gap");
        BetweenMm(settings.Fill?.DistanceMm, AreaFill.LeastMm, AreaFill.MostMm, Measure.StrokeDistance, "distance");
        Between(settings.Fill?.AngleDegrees, -360, 360, Measure.StrokeDegrees, "angle");
        Between(settings.Tool?.ForceGrams, 1, ToolSettingsChange.MostForceGrams, Measure.ForceGrams, "force");
        Between(settings.Tool?.SpeedMmPerSecond, 1, 2000, Measure.Speed, "speed");
        BetweenMm(settings.Tool?.BladeOutMm, 0.01, 10, Measure.BladeOut, "bladeOut");
        Between(settings.Tool?.TemperatureCelsius, 30, 300, Measure.Celsius, "heat");
        Between(settings.Hold?.Count, 1, HoldingBridges.MostCount, Measure.BridgeCount, "count");
        BetweenMm(settings.Hold?.WidthMm, HoldingBridges.LeastMm, HoldingBridges.MostMm, Measure.BridgeWidth, "width");
        BetweenMm(settings.Hold?.ShiftMm, -HoldingBridges.MostShiftMm, HoldingBridges.MostShiftMm, Measure.MoveDistance, "shift");
        foreach (var band in settings.Print?.Bands ?? [])
        {
            if (!StockColours.IsColour(band.Colour)) throw new EditRefused(Reason.NotAColour) { Field = "colour" };
            BetweenMm(band.WidthMm, PrintBand.LeastMm, PrintBand.MostMm, Measure.PrintedWidth, "width");
            BetweenMm(band.DashMm, band.DashMm == 0 ? 0 : PrintBand.LeastDashMm, PrintBand.MostDashMm, Measure.Dash, "dash");
            BetweenMm(band.GapMm, band.GapMm == 0 ? 0 : PrintBand.LeastDashMm, PrintBand.MostDashMm, Measure.DashGap, "gap");
        }
        if (settings.Print?.Fill is { } fill && !StockColours.IsColour(fill)) throw new EditRefused(Reason.NotAColour) { Field = "fill" };
        if (settings.Hold is { MovedMm.IsDefault: false } hold)
        {
            Between(hold.MovedMm.Length, 0, HoldingBridges.MostCount, Measure.BridgeCount, "tie");
            foreach (var moved in hold.MovedMm) BetweenMm(moved, -HoldingBridges.MostShiftMm, HoldingBridges.MostShiftMm, Measure.MoveDistance, "tie");
        }
        Between(settings.Tool?.Times, 1, MostTimes, Measure.TimesOver, "times");
    }
}
