namespace UnrulyMeadow.Core.Colour;

/// <summary>Says colours in plain words.</summary>
public static class ColourWords
{
    // Keyword colours of CSS Color Module Level 4, section 6.1, each under the word that it is a shade of.
    private static readonly (ColourWord Word, string Colour, Lab Lab)[] Shades =
    [
        .. new[]
        {
            (ColourWord.White, "#ffffff"), // white
            (ColourWord.White, "#f5f5f5"), // whitesmoke
            (ColourWord.Cream, "#fff8dc"), // cornsilk
            (ColourWord.Cream, "#ffefd5"), // papayawhip
            (ColourWord.Yellow, "#ffff00"), // yellow
            (ColourWord.Yellow, "#ffd700"), // gold
            (ColourWord.Yellow, "#f0e68c"), // khaki
            (ColourWord.Orange, "#ffa500"), // orange
            (ColourWord.Orange, "#ff8c00"), // darkorange
            (ColourWord.Orange, "#ff7f50"), // coral
            (ColourWord.Red, "#ff0000"), // red
            (ColourWord.Red, "#dc143c"), // crimson
            (ColourWord.Red, "#b22222"), // firebrick
            (ColourWord.Red, "#8b0000"), // darkred
            (ColourWord.Pink, "#ffc0cb"), // pink
            (ColourWord.Pink, "#ffb6c1"), // lightpink
            (ColourWord.Pink, "#ff69b4"), // hotpink
            (ColourWord.Pink, "#fa8072"), // salmon
            (ColourWord.Magenta, "#ff00ff"), // magenta
            (ColourWord.Magenta, "#ff1493"), // deeppink
            (ColourWord.Magenta, "#c71585"), // mediumvioletred
            (ColourWord.Purple, "#800080"), // purple
            (ColourWord.Purple, "#9932cc"), // darkorchid
            (ColourWord.Purple, "#4b0082"), // indigo
            (ColourWord.Purple, "#663399"), // rebeccapurple
            (ColourWord.Lavender, "#e6e6fa"), // lavender
            (ColourWord.Lavender, "#d8bfd8"), // thistle
            (ColourWord.Lavender, "#dda0dd"), // plum
            (ColourWord.Lavender, "#9370db"), // mediumpurple
            (ColourWord.Blue, "#0000ff"), // blue
            (ColourWord.Blue, "#4169e1"), // royalblue
            (ColourWord.Blue, "#6a5acd"), // slateblue
            (ColourWord.Blue, "#87ceeb"), // skyblue
            (ColourWord.Blue, "#000080"), // navy
            (ColourWord.Green, "#008000"), // green
            (ColourWord.Green, "#9acd32"), // yellowgreen
            (ColourWord.Green, "#556b2f"), // darkolivegreen
            (ColourWord.Green, "#8fbc8f"), // darkseagreen
            (ColourWord.Brown, "#8b4513"), // saddlebrown
            (ColourWord.Brown, "#a0522d"), // sienna
            (ColourWord.Brown, "#d2b48c"), // tan
            (ColourWord.Black, "#000000"), // black
            (ColourWord.Black, "#2f4f4f"), // darkslategray
            (ColourWord.Silver, "#c0c0c0"), // silver
            (ColourWord.Silver, "#b0c4de"), // lightsteelblue
        }.Select(s => (s.Item1, s.Item2, Lab.Of(s.Item2))),
    ];

    /// <summary>The shades that a word stands for, #rrggbb, its purest first.</summary>
    public static IReadOnlyList<string> ShadesOf(ColourWord word) => [.. Shades.Where(s => s.Word == word).Select(s => s.Colour)];

    /// <summary>The word of the nearest shade, by the difference of CIE Lab coordinates as people see it (CIEDE2000).</summary>
    /// <param name="colour">#rrggbb.</param>
    public static ColourWord Of(string colour)
    {
        Lab lab = Lab.Of(colour);
        return Shades.MinBy(s => ColourDifference.Ciede2000(s.Lab, lab)).Word;
    }
}
