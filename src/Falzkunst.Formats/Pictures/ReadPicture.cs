using Falzkunst.Core.Pictures;

namespace Falzkunst.Formats.Pictures;

/// <summary>A picture as it was read.</summary>
/// <param name="Image">Its dots in sRGB, turned upright.</param>
/// <param name="DotsPerInch">Its resolution where the file says one.</param>
/// <param name="MediaType">What kind of file it was.</param>
public sealed record ReadPicture(PixelImage Image, double? DotsPerInch, string MediaType);
