namespace Falzkunst.Core.Designs.Checking;

/// <summary>What is worth pointing out about pictures on pieces.</summary>
internal static class PictureChecks
{
    /// <summary>Findings on a piece: pictures so large that their dots show.</summary>
    public static IEnumerable<Finding> OfPiece(Piece piece)
    {
        foreach (var item in piece.Items.OfType<PictureItem>().Where(i => i.Of is not null && i.IsCoarse))
        {
            // As wide as it may be: what it bears.
            yield return new Finding(FindingCodes.CoarsePicture, Severity.Minor, piece.Id, null, piece.Place.Apply(item.Bounds.Centre))
            {
                Name = piece.Name,
                Other = Math.Round(item.DotsPerInch).ToString(System.Globalization.CultureInfo.InvariantCulture),
                LengthsMm = [item.PixelsAcross * CardPicture.InchMm / CardPicture.LeastDotsPerInch, item.WidthOnPieceMm],
            };
        }
    }
}
