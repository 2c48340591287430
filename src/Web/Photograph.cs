using SkiaSharp;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>A photograph made small and clean: decoded, turned upright, and written anew, so that nothing but the picture is kept.</summary>
/// <param name="Width">Pixels.</param>
/// <param name="Height">Pixels.</param>
/// <param name="Jpeg">The picture.</param>
/// <param name="Thumb">A small one.</param>
public sealed record Photograph(int Width, int Height, byte[] Jpeg, byte[] Thumb)
{
    /// <summary>Largest file taken, bytes.</summary>
    public const long MostBytes = 15 * 1024 * 1024;

    /// <summary>Longest side kept, pixels.</summary>
    public const int LongestSide = 1600;

    private const int ThumbSide = 320;
    private const int MostOfCaption = 200;

    // A small file can unfold into a huge picture; this many pixels are more than any camera of a crew makes.
    private const long MostPixels = 50_000_000;

    /// <summary>Reads a JPEG or PNG.</summary>
    /// <param name="content">The file.</param>
    /// <exception cref="InvalidInputException">It is neither, is damaged, or is too large.</exception>
    public static Photograph Read(byte[] content)
    {
        if (content.LongLength > MostBytes)
            throw new InvalidInputException(
                "photo",
                $"is {content.LongLength / 1048576.0:0.#} MB; the most is {MostBytes / 1048576} MB. Send a smaller size"
            );
        using var data = SKData.CreateCopy(content);
        using SKCodec? codec = SKCodec.Create(data);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png))
            throw new InvalidInputException("photo", "is no JPEG or PNG picture, whatever its name says");
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            throw new InvalidInputException(
                "photo",
                $"is {codec.Info.Width:#,0} × {codec.Info.Height:#,0} pixels; the most is {MostPixels / 1_000_000} million"
            );
        // JPEG can be unfolded at eighths of its size; no more is unfolded than what is kept of it needs.
        double scale = Math.Min(1, (double)LongestSide / Math.Max(codec.Info.Width, codec.Info.Height));
        SKSizeI size = codec.GetScaledDimensions((float)(Math.Ceiling(8 * scale) / 8));
        if (size.Width < 1 || size.Height < 1)
            size = codec.Info.Size;
        using var bitmap = new SKBitmap(codec.Info.WithSize(size).WithColorType(SKColorType.Rgba8888).WithAlphaType(SKAlphaType.Premul));
        if (codec.GetPixels(bitmap.Info, bitmap.GetPixels()) is not SKCodecResult.Success)
            throw new InvalidInputException("photo", "is damaged: it could not be read to its end");
        // Made small before it is turned, so that no second large picture is ever held.
        using SKBitmap small = Small(bitmap);
        using SKBitmap upright = Upright(small, codec.EncodedOrigin);
        (int width, int height, byte[] jpeg) = Encode(upright, LongestSide, 84);
        return new Photograph(width, height, jpeg, Encode(upright, ThumbSide, 78).Jpeg);
    }

    /// <summary>As it is kept beside an entry of the log, of whose day it is: its identity is the entry's.</summary>
    public PlanterPhoto At(Observation seen) =>
        new(seen.Id, seen.PlanterId, seen.Day, seen.Note.Length > MostOfCaption ? seen.Note[..MostOfCaption] : seen.Note, Width, Height);

    /// <summary>Reads a file that was sent, beside the pages and few at once.</summary>
    /// <param name="file">The file.</param>
    /// <param name="heavy">What keeps large work few.</param>
    /// <exception cref="InvalidInputException">It is no picture, is damaged, or is too large.</exception>
    public static Task<Photograph> Of(IFormFile file, HeavyWork heavy) =>
        heavy.Do(async () =>
        {
            using var buffer = new MemoryStream();
            await file.CopyToAsync(buffer);
            return Read(buffer.ToArray());
        });

    /// <summary>A photograph of ours as it is kept, with its small one made anew.</summary>
    /// <param name="jpeg">Its bytes as they were kept.</param>
    /// <exception cref="InvalidInputException">It is no photograph of ours.</exception>
    public static Photograph Kept(byte[] jpeg)
    {
        Photograph read = Read(jpeg);
        return read with { Jpeg = jpeg };
    }

    private static SKBitmap Small(SKBitmap picture)
    {
        double scale = Math.Min(1, (double)LongestSide / Math.Max(picture.Width, picture.Height));
        var small = new SKBitmap(
            Math.Max(1, (int)Math.Round(picture.Width * scale)),
            Math.Max(1, (int)Math.Round(picture.Height * scale)),
            SKColorType.Rgba8888,
            SKAlphaType.Premul
        );
        using var canvas = new SKCanvas(small);
        canvas.DrawBitmap(picture, new SKRect(0, 0, small.Width, small.Height), new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        return small;
    }

    private static (int Width, int Height, byte[] Jpeg) Encode(SKBitmap picture, int side, int quality)
    {
        double scale = Math.Min(1, (double)side / Math.Max(picture.Width, picture.Height));
        var info = new SKImageInfo(
            Math.Max(1, (int)Math.Round(picture.Width * scale)),
            Math.Max(1, (int)Math.Round(picture.Height * scale)),
            SKColorType.Rgba8888,
            SKAlphaType.Opaque
        );
        using var surface = SKSurface.Create(info);
        surface.Canvas.Clear(SKColors.White);
        using SKImage image = SKImage.FromBitmap(picture);
        surface.Canvas.DrawImage(image, new SKRect(0, 0, info.Width, info.Height), new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        using SKImage small = surface.Snapshot();
        using SKData encoded = small.Encode(SKEncodedImageFormat.Jpeg, quality);
        return (info.Width, info.Height, encoded.ToArray());
    }

    // A camera held sideways says so in what is thrown away here.
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        bool onSide = origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var turned = new SKBitmap(
            onSide ? picture.Height : picture.Width,
            onSide ? picture.Width : picture.Height,
            SKColorType.Rgba8888,
            SKAlphaType.Premul
        );
        using var canvas = new SKCanvas(turned);
        switch (origin)
        {
            case SKEncodedOrigin.BottomRight or SKEncodedOrigin.BottomLeft:
                canvas.RotateDegrees(180, turned.Width / 2f, turned.Height / 2f);
                break;
            case SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom:
                canvas.Translate(turned.Width, 0);
                canvas.RotateDegrees(90);
                break;
            case SKEncodedOrigin.LeftBottom or SKEncodedOrigin.LeftTop:
                canvas.Translate(0, turned.Height);
                canvas.RotateDegrees(270);
                break;
        }
        canvas.DrawBitmap(picture, 0, 0, new SKSamplingOptions());
        return turned;
    }
}
