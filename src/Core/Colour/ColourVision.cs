namespace UnrulyMeadow.Core.Colour;

/// <summary>How an eye sees colour.</summary>
public enum ColourSight
{
    /// <summary>Three kinds of cones, as most people.</summary>
    Usual,

    /// <summary>Without cones for long waves: red is dark.</summary>
    Protan,

    /// <summary>Without cones for middle waves: the most common of the three.</summary>
    Deutan,

    /// <summary>Without cones for short waves: rare.</summary>
    Tritan,
}

/// <summary>Colours as seen with a colour-vision deficiency, full severity (Machado, Oliveira &amp; Fernandes 2009).</summary>
public static class ColourVision
{
    private static readonly double[] Protan = [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998];

    private static readonly double[] Deutan = [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.011820, 0.042940, 0.968881];

    private static readonly double[] Tritan = [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.303900];

    /// <summary>The colour as that eye sees it.</summary>
    public static Srgb Seen(Srgb colour, ColourSight sight)
    {
        double[]? m = sight switch
        {
            ColourSight.Protan => Protan,
            ColourSight.Deutan => Deutan,
            ColourSight.Tritan => Tritan,
            _ => null,
        };
        if (m is null)
            return colour;
        (double r, double g, double b) = colour.Light;
        return Srgb.FromLight(((m[0] * r) + (m[1] * g) + (m[2] * b), (m[3] * r) + (m[4] * g) + (m[5] * b), (m[6] * r) + (m[7] * g) + (m[8] * b)));
    }

    /// <summary>The colour as that eye sees it, #rrggbb.</summary>
    public static string Seen(string colour, ColourSight sight) => Seen(Srgb.Of(colour), sight).ToString();
}
