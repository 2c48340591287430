using System.Globalization;

namespace UnrulyMeadow.Hostile;

/// <summary>
/// Processor time that a virtual machine was kept waiting for while others ran on its host, as the kernel counts it ("steal" in
/// /proc/stat, in hundredths of a second, summed over processors). An answer that waited for the host did not hang.
/// </summary>
public static class Stolen
{
    private const int Steal = 8;
    private const double TicksPerSecond = 100;

    /// <summary>So far since the machine started.</summary>
    public static TimeSpan Time
    {
        get
        {
            string[] all = File.ReadLines("/proc/stat").First().Split(' ', StringSplitOptions.RemoveEmptyEntries);
            return all.Length > Steal ? TimeSpan.FromSeconds(long.Parse(all[Steal], CultureInfo.InvariantCulture) / TicksPerSecond) : TimeSpan.Zero;
        }
    }
}
