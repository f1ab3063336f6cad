namespace Falzkunst.Core.Measures;

/// <summary>What lengths are shown in; all computation is in millimetres.</summary>
public enum Units
{
    Millimetres,

    /// <summary>Inches as decimals.</summary>
    Inches,

    /// <summary>Inches in whole eighths where a length comes to such, as on a crafter's ruler; decimals elsewhere.</summary>
    InchEighths,
}

/// <summary>Questions about units.</summary>
public static class UnitsQuestions
{
    /// <summary>A number without a unit is one of inches.</summary>
    public static bool AreInches(this Units units) => units != Units.Millimetres;
}
