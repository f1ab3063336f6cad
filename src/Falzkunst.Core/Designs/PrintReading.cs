using Falzkunst.Core.Geometry;

namespace Falzkunst.Core.Designs;

/// <summary>What was read of a printed page's marks on somebody's own scan or photo.</summary>
/// <param name="At">When.</param>
/// <param name="RemainsMm">Cut along the marks, cut and print lie no farther apart than this in 95 of 100 cases, mm.</param>
/// <param name="UnreadMm">Cut by a machine that knows where the page lies but reads no marks, they lie so far apart at worst, mm; null where a picture cannot tell, as a photo cannot.</param>
/// <param name="Piece">Id of the piece at the worst place.</param>
/// <param name="Copy">Which copy.</param>
/// <param name="Place">The worst place, mm of the sheet.</param>
/// <param name="ScaleX">How large the page came out along x; 1 is true.</param>
/// <param name="ScaleY">Along y.</param>
/// <param name="SkewDegrees">By how much its corners are off a right angle.</param>
/// <param name="TurnDegrees">How it lay in the picture.</param>
/// <param name="IsPhoto">A camera took it.</param>
public sealed record PrintReading(
    DateTimeOffset At, double RemainsMm, double? UnreadMm, string Piece, int Copy, Point Place, double ScaleX, double ScaleY, double SkewDegrees, double TurnDegrees, bool IsPhoto);
