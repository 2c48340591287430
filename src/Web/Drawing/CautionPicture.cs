using System.Xml.Linq;
using UnrulyMeadow.Core.Facts;
using UnrulyMeadow.Core.Work;
using static UnrulyMeadow.Web.Drawing.Figure;

namespace UnrulyMeadow.Web.Drawing;

/// <summary>Small pictures beside cautions, so that they are seen before they are read; in ink alone, for black and white print.</summary>
public static class CautionPicture
{
    /// <summary>The picture of a caution.</summary>
    public static XElement Of(Fact caution) =>
        El(
            "svg",
            "viewBox",
            "0 0 32 32",
            "class",
            "caution-picture",
            "aria-hidden",
            "true",
            Strokes(caution.Kind as CautionKind?).Select(d => El("path", "d", d))
        );

    private static IEnumerable<string> Strokes(CautionKind? kind) =>
        kind switch
        {
            // A bit that bores: handle, shaft, turns of the screw.
            CautionKind.PoweredAuger =>
            [
                "M8 6 H24 M16 6 V13",
                "M11 14 Q16 17 21 14 M11.5 18 Q16 21 20.5 18 M12.5 22 Q16 24.5 19.5 22 M16 13 V28 M13.5 25 L16 29 L18.5 25",
            ],
            // Somebody on one knee, on a pad.
            CautionKind.Kneeling => ["M15 5 a2.6 2.6 0 1 0 0.1 0", "M15 11 L14 19 L21 20 L21 26 M14 19 L9 24 L8 26 M15 13 L21 16", "M5 28 H25"],
            // A pot between two who lift it.
            CautionKind.HeavyPots =>
            [
                "M11 14 H21 L19.5 25 H12.5 Z M10 12 H22 V14 H10 Z",
                "M4 20 Q6 14 10 16 M28 20 Q26 14 22 16",
                "M16 3 V9 M13 6 L16 3 L19 6",
            ],
            // A blade.
            CautionKind.Knife => ["M5 26 L9 22", "M9 22 L22 9 Q26 5 27 5 Q28 9 24 14 L13 25 Z", "M9 22 L13 25"],
            // A sprayer.
            CautionKind.SoapOrOil => ["M11 13 H20 V28 H11 Z M13 13 V8 H20 M13 8 H10 L8 11", "M23 6 L27 4 M23 8 H28 M23 10 L27 12"],
            // A leaf with holes.
            CautionKind.ToleratePests => ["M6 26 Q6 8 26 6 Q26 24 8 25 M6 26 L20 12", "M15 19 a1.6 1.6 0 1 0 0.1 0 M20 14 a1.4 1.4 0 1 0 0.1 0"],
            // A hand before a leaf.
            _ =>
            [
                "M4 28 Q4 12 16 8 Q18 20 6 27 M4 28 L12 16",
                "M20 28 V18 Q20 16 21.5 16 V24 M21.5 18 V13 Q23 11.5 24.5 13 V23 M24.5 16 Q26 14.5 27.5 16 V26 L25 29 H20",
            ],
        };
}
