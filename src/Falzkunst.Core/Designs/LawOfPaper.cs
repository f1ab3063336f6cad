namespace Falzkunst.Core.Designs;

/// <summary>When a line runs: wet and hot work on uncut paper, folds before cuts, inside before outside.</summary>
public enum Stage
{
    Draw,
    Foil,
    Emboss,
    Score,
    Perforate,
    HalfCuts,
    InnerCuts,
    OuterCuts,
}

/// <summary>
/// What each line does to the paper it lies on, and in which order: asked by whoever says what is paper, plans a run, draws a
/// picture or writes a file.
/// </summary>
public static class LawOfPaper
{
    /// <summary>When a line runs; null where no tool runs it.</summary>
    /// <param name="line">The line.</param>
    /// <param name="isOutline">It bounds its piece.</param>
    public static Stage? StageOf(WorkedItem line, bool isOutline) => line.Operation switch
    {
        _ when line.EffectiveSettings.LeftOut => null,
        Operation.Draw => Stage.Draw,
        Operation.Foil => Stage.Foil,
        Operation.Emboss => Stage.Emboss,
        Operation.Score => Stage.Score,
        Operation.Perforate => Stage.Perforate,
        Operation.Cut when line.EffectiveSettings.HalfCut => Stage.HalfCuts,
        Operation.Cut => isOutline ? Stage.OuterCuts : Stage.InnerCuts,
        _ => null,
    };

    /// <summary>A blade goes through the paper along it in this run: what a closed one surrounds falls out.</summary>
    public static bool CutsThrough(WorkedItem line) => StageOf(line, isOutline: false) == Stage.InnerCuts;

    /// <summary>It leaves something to be seen on one of the paper's faces.</summary>
    public static bool MarksFace(WorkedItem line) => !line.EffectiveSettings.LeftOut && line.Operation != Operation.Aid && !CutsThrough(line);

    /// <summary>
    /// A score that ran into it would tear: every cut, half cuts and those that are left out this time among them, and the outline
    /// whatever follows it.
    /// </summary>
    public static bool EndsScores(WorkedItem line, bool isOutline) => isOutline || line.Operation == Operation.Cut;

    public static string Title(this Stage stage) => stage switch
    {
        Stage.HalfCuts => "Half cuts",
        Stage.InnerCuts => "Inner cuts",
        Stage.OuterCuts => "Outer cuts",
        _ => stage.ToString(),
    };
}
