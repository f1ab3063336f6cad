using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Building;
using Falzkunst.Core.Catalogue;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Editing;

/// <summary>Pictures of a design: brought in, worked on, laid on pieces.</summary>
internal static class Picturing
{
    /// <summary>A project has no more pictures.</summary>
    private const int Most = 60;

    public static Design BringIn(Design design, BringInPicture edit)
    {
        if (design.Pictures.Length >= Most) throw new EditRefused(Reason.PicturesFull, Most);
        if (string.IsNullOrWhiteSpace(edit.Name) || edit.PixelsAcross < 1 || edit.PixelsDown < 1) throw new EditRefused(Reason.PictureGone);
        var picture = new CardPicture(string.Create(CultureInfo.InvariantCulture, $"i{design.NextPicture}"), edit.Name, edit.Content, edit.PixelsAcross, edit.PixelsDown, edit.MmPerDot);
        CheckSize(picture);
        return design with { Pictures = design.Pictures.Add(picture), NextPicture = design.NextPicture + 1 };
    }

    public static Design Step(Design design, AddPictureStep edit)
    {
        PictureSteps.Check(edit.Step);
        var picture = design.RequirePicture(edit.Picture);
        if (picture.Steps.Length >= PictureSteps.Most) throw new EditRefused(Reason.PictureStepsFull, PictureSteps.Most);
        return With(design, picture, picture with { Steps = picture.Steps.Add(edit.Step) });
    }

    public static Design Drop(Design design, DropPictureStep edit)
    {
        var picture = design.RequirePicture(edit.Picture);
        if (edit.Index < 0 || edit.Index >= picture.Steps.Length) throw new EditRefused(Reason.PictureGone);
        return With(design, picture, picture with { Steps = picture.Steps.RemoveAt(edit.Index) });
    }

    public static Design Size(Design design, ResizePicture edit)
    {
        var picture = design.RequirePicture(edit.Picture);
        var sized = picture with { MmPerDot = edit.MmPerDot };
        CheckSize(sized);
        return With(design, picture, sized);
    }

    public static Design Remove(Design design, RemovePicture edit)
    {
        var picture = design.RequirePicture(edit.Picture);
        if (design.Pieces.FirstOrDefault(p => p.Items.Any(i => i is PictureItem item && item.Of == picture.Id)) is { } on) throw new EditRefused(Reason.PictureLies, on.Name);
        return design with { Pictures = design.Pictures.Remove(picture) };
    }

    public static Design Trace(Project project, TakeTrace edit, Drawer drawer)
    {
        if (edit.Traced is not { } traced) throw new EditRefused(Reason.NothingTraced);
        var card = project.SetOut.Card;
        return TracedPieces.Take(project.Design, edit.Picture, traced, edit.Settings, edit.Operation, edit.Onto, edit.Again, (card.OpenWidth, card.OpenHeight), drawer);
    }

    /// <summary>Laid in the middle of the piece: as large as it is, or so large that it covers the piece where it is smaller. A pattern begins at the upper left at its own size.</summary>
    public static Design Lay(Design design, LayPicture edit)
    {
        var (picture, piece) = (design.RequirePicture(edit.Picture), Arranging.Unlocked(design.Require(edit.Piece)));
        var (width, height) = picture.SizeMm;
        var cover = edit.IsPattern ? 1 : Math.Max(1, Math.Max(piece.Size.Width / width, piece.Size.Height / height));
        var middle = piece.Size.Centre;
        var place = edit.IsPattern
            ? Affine.Move(piece.Size.MinX, piece.Size.MinY)
            : Affine.Scale(cover, cover).Then(Affine.Move(middle.X - width * cover / 2, middle.Y - height * cover / 2));
        return design.With(edit.Piece, p => p.Plus(picture.On("", place) with { IsPattern = edit.IsPattern }));
    }

    public static Design Place(Design design, PlacePicture edit)
    {
        if (Math.Abs(edit.Place.Determinant) is not (> 1e-6 and < 1e6)) throw EditRefused.Range(Measure.ArtScale, 0.001, 1000, "scale");
        return design.With(edit.Piece, p => Changed(Arranging.Unlocked(p), edit.Item, i => i with { Place = edit.Place, IsPattern = edit.IsPattern }));
    }

    public static Design TakeOff(Design design, TakeOffPictures edit) => design.With(edit.Piece, p =>
    {
        var kept = Arranging.Unlocked(p).Items.RemoveAll(i => i is PictureItem && edit.Items.Contains(i.Id));
        return kept.Length < p.Items.Length ? p with { Items = kept } : throw new EditRefused(Reason.PictureGone);
    });

    private static Piece Changed(Piece piece, string item, Func<PictureItem, PictureItem> change)
    {
        var was = piece.Items.OfType<PictureItem>().FirstOrDefault(i => i.Id == item) ?? throw new EditRefused(Reason.PictureGone);
        return piece with { Items = piece.Items.Replace(was, change(was)) };
    }

    /// <summary>The design with another form of a picture: where it lies on pieces, its middle stays there and its size on paper follows.</summary>
    private static Design With(Design design, CardPicture was, CardPicture now)
    {
        CheckDots(now);
        var ((across, down), (width, height)) = (now.Pixels, now.SizeMm);
        Item Follow(Item item)
        {
            if (item is not PictureItem { Of: { } of } laid || of != was.Id) return item;
            var middle = laid.Place.Apply(new Point(laid.Width / 2, laid.Height / 2));
            var moved = laid with { Width = width, Height = height, PixelsAcross = across, PixelsDown = down, Key = now.Key };
            var shift = middle - moved.Place.Apply(new Point(width / 2, height / 2));
            return laid.IsPattern ? moved : moved with { Place = moved.Place.Then(Affine.Move(shift.X, shift.Y)) };
        }
        return design with
        {
            Pictures = design.Pictures.Replace(was, now),
            Pieces = [.. design.Pieces.Select(p => p.Items.Any(i => i is PictureItem item && item.Of == was.Id) ? p with { Items = [.. p.Items.Select(Follow)] } : p)],
        };
    }

    /// <summary>After each of its steps: what is cropped at the end must not have been larger than can be held before.</summary>
    private static void CheckDots(CardPicture picture)
    {
        var (across, down) = (picture.PixelsAcross, picture.PixelsDown);
        foreach (var step in picture.Steps)
        {
            (across, down) = PictureSize.After(across, down, [step]);
            if ((long)across * down > CardPicture.MostDots) throw new EditRefused(Reason.PictureDots, across, down);
        }
    }

    private static void CheckSize(CardPicture picture)
    {
        var (width, height) = picture.SizeMm;
        if (!(Math.Min(width, height) >= CardPicture.LeastMm / 10 && Math.Max(width, height) is >= CardPicture.LeastMm and <= CardPicture.MostMm)) throw EditRefused.RangeMm(Measure.PictureSize, CardPicture.LeastMm, CardPicture.MostMm, "width");
    }
}
