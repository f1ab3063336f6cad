using System.Text.Json.Serialization;

namespace Falzkunst.Core.Designs;

/// <summary>An item along which a tool runs.</summary>
/// <param name="Id">Id of the item.</param>
/// <param name="Operation">What the tool does.</param>
/// <param name="Ink">Colour of pen or foil as #rrggbb; null for other operations.</param>
public abstract record WorkedItem(string Id, Operation Operation, string? Ink) : Item(Id)
{
    public const string GoldFoil = "#B98300";
    public const string DefaultPen = "#7B4BA8";

    /// <summary>How its operation is done; null for the plain way.</summary>
    [JsonPropertyName("manner")]
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public LineSettings? Settings { get; init; }

    /// <summary>How it looked in its file.</summary>
    [JsonIgnore]
    public abstract Look SeenAs { get; }

    /// <summary>It lies where it was put, and can be moved, turned and scaled on its piece; otherwise it follows something there.</summary>
    [JsonIgnore]
    public virtual bool StandsFree => false;

    /// <summary>How its operation is done, the plain way included.</summary>
    [JsonIgnore]
    public LineSettings EffectiveSettings => Settings ?? LineSettings.Plain;

    /// <summary>Width of the tip that runs it, mm.</summary>
    [JsonIgnore]
    public double TipMm => Settings?.TipMm ?? Tips.UsualMm(Operation);

    /// <summary>A blade goes through the paper along it in this run.</summary>
    [JsonIgnore]
    public bool IsCutThrough => LawOfPaper.CutsThrough(this);

    /// <summary>Cut through, never made or left out this time it marks neither side.</summary>
    public override bool MarksFace => LawOfPaper.MarksFace(this);

    /// <summary>The same item under another operation, with the pen or foil that goes with it.</summary>
    public WorkedItem With(Operation operation) => this with { Operation = operation, Ink = InkFor(operation, SeenAs), Settings = Settings?.Under(operation) };

    /// <summary>The same item worked in another settings, as far as that has a meaning under its operation.</summary>
    public WorkedItem With(LineSettings settings) => this with { Settings = settings.Under(Operation) };

    /// <summary>The pen or foil of a line that is given an operation.</summary>
    public static string? InkFor(Operation operation, Look look) => operation switch
    {
        Operation.Draw => look.Stroke ?? look.Fill ?? DefaultPen,
        Operation.Foil => GoldFoil,
        _ => null,
    };
}
