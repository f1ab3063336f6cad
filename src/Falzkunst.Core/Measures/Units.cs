namespace Falzkunst.Core.Measures;

/// <summary>What lengths are shown in; all computation is in millimetres.</summary>
public enum Units
{
    Millimetres,
    Inches,
}
