using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using NodaTime;
using UnrulyMeadow.Core;
using UnrulyMeadow.Core.Climate;
using UnrulyMeadow.Core.Crew;
using UnrulyMeadow.Core.Planning;
using UnrulyMeadow.Core.Review;
using UnrulyMeadow.Core.Supply;
using UnrulyMeadow.Exchange.Crew;
using UnrulyMeadow.Exchange.Palette;
using UnrulyMeadow.Exchange.PlanFiles;
using UnrulyMeadow.Exchange.Sheets;
using UnrulyMeadow.Exchange.Supply;
using UnrulyMeadow.Exchange.Weather;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>A station in the file of everything.</summary>
internal sealed record KeptStation(
    string Id,
    string Name,
    double LatitudeDeg,
    double LongitudeDeg,
    double ElevationM,
    string? Days = null,
    MonthlyNormals? Normals = null,
    bool Removed = false
);

/// <summary>The site's stations in the file of everything, and which of them it computes with.</summary>
internal sealed record KeptStations(bool Chosen, IReadOnlyList<KeptStation> Stations, string? InUse = null);

/// <summary>A photograph in the file of everything.</summary>
internal sealed record KeptPhotograph(Guid Id, string PlanterId, LocalDate TakenOn, string Caption, string File);

/// <summary>A photograph of a delivery in the file of everything.</summary>
internal sealed record KeptDeliveryPhotograph(Guid Id, Guid ReceiptId, string File);

/// <summary>A photograph of work in the file of everything.</summary>
internal sealed record KeptWorkPhotograph(Guid Id, Guid GivenId, string File);

/// <summary>A plan kept beside the present one, in the file of everything.</summary>
internal sealed record KeptPlan(string Name, string File);

/// <summary>A file of the archive.</summary>
internal sealed record KeptFile(string Name, long Bytes, string Sha256);

/// <summary>What an archive says of itself.</summary>
internal sealed record ArchiveManifest(string Format, int Version, string Site, IReadOnlyList<KeptFile> Files);

/// <summary>
/// All that a site holds, as one file of open formats: the plan, the log, the weather, the photographs and the plans kept beside. What
/// is written of an empty place into which it was brought is the same file, byte for byte. Ways back (undo), answers of long work and
/// drafts are not of it: they can be made anew, or pass.
/// </summary>
/// <param name="plans">The plan.</param>
/// <param name="log">The log.</param>
/// <param name="weather">The weather.</param>
/// <param name="photos">The photographs.</param>
/// <param name="variants">Plans kept beside.</param>
/// <param name="supply">Suppliers, orders, deliveries and the rest.</param>
/// <param name="crew">Work that was given and told.</param>
public sealed class Everything(
    PlanStore plans,
    LogStore log,
    WeatherStore weather,
    PhotoStore photos,
    VariantStore variants,
    SupplyStore supply,
    CrewStore crew
)
{
    private const string ManifestName = "manifest.json";
    private const string SupplyName = "supply.json";
    private const string DeliveriesName = "deliveries/list.json";
    private const string CrewName = "crew.json";
    private const string WorkPicturesName = "work/list.json";
    private const string Format = "unruly-meadow site";
    private const int FormatVersion = 1;

    private static readonly DateTimeOffset Always = new(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>Writes everything.</summary>
    /// <param name="to">Where to.</param>
    public async Task Write(Stream to)
    {
        using var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true);
        var files = new List<KeptFile>();
        Task Put(ZipArchive archive, string name, byte[] bytes) => Everything.Put(archive, name, bytes, files);
        LoadedPlan now = await plans.Now();
        await Put(zip, "plan.json", PlanFile.Write(now.Plan));
        // The palette is in the plan; as a sheet it is there for who opens the archive by hand.
        await Put(zip, "palette.csv", PaletteSheet.Write(now.Plan.Palette));
        using (var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256))
        {
            long bytes = 0;
            await using Stream entry = Entry(zip, "log.csv");
            await foreach (byte[] piece in CsvSheets.Log(log.All()))
            {
                hash.AppendData(piece);
                bytes += piece.Length;
                await entry.WriteAsync(piece);
            }
            files.Add(new KeptFile("log.csv", bytes, Convert.ToHexStringLower(hash.GetHashAndReset())));
        }
        var stations = new List<KeptStation>();
        IReadOnlyList<StationSummary> removed = await weather.RemovedStations();
        foreach (StationSummary s in (await weather.Stations()).Concat(removed).OrderBy(s => s.Id, StringComparer.Ordinal))
        {
            MonthlyNormals? normals = await weather.Normals(s.Id);
            string? file = normals is null ? $"weather/{stations.Count + 1}.csv" : null;
            if (file is not null)
                await Put(zip, file, StationSheet.Write(await weather.Days(s.Id)));
            stations.Add(new KeptStation(s.Id, s.Name, s.LatitudeDeg, s.LongitudeDeg, s.ElevationM, file, normals, removed.Contains(s)));
        }
        await Put(zip, "weather/stations.json", Json(new KeptStations(await weather.IsChosen(), stations, now.Mark.StationId)));
        var pictures = new List<KeptPhotograph>();
        foreach (PlanterPhoto p in await photos.All())
        {
            if (await photos.Bytes(p.PlanterId, p.Id, small: false) is not { } jpeg)
                continue;
            await Put(zip, $"photographs/{p.Id}.jpg", jpeg);
            pictures.Add(new KeptPhotograph(p.Id, p.PlanterId, p.TakenOn, p.Caption, $"photographs/{p.Id}.jpg"));
        }
        await Put(zip, "photographs/list.json", Json(pictures));
        var kept = new List<KeptPlan>();
        foreach (PlanVariant v in (await variants.All()).OrderBy(v => v.Name, StringComparer.Ordinal))
        {
            if (await variants.Document(v.Id) is not { } plan)
                continue;
            string file = $"kept-plans/{kept.Count + 1}.plan.json";
            await Put(zip, file, plan);
            kept.Add(new KeptPlan(v.Name, file));
        }
        await Put(zip, "kept-plans/list.json", Json(kept));
        await Put(zip, SupplyName, SupplyFile.Write(await supply.All()));
        var deliveries = new List<KeptDeliveryPhotograph>();
        foreach ((Guid id, Guid receipt) in await supply.AllPhotographs())
        {
            if (await supply.Photograph(id, small: false) is not { } jpeg)
                continue;
            await Put(zip, $"deliveries/{id}.jpg", jpeg);
            deliveries.Add(new KeptDeliveryPhotograph(id, receipt, $"deliveries/{id}.jpg"));
        }
        await Put(zip, DeliveriesName, Json(deliveries));
        await Put(zip, CrewName, CrewFile.Write(await crew.All()));
        var work = new List<KeptWorkPhotograph>();
        foreach ((Guid id, Guid given) in await crew.AllPhotographs())
        {
            if (await crew.Photograph(id, small: false) is not { } jpeg)
                continue;
            await Put(zip, $"work/{id}.jpg", jpeg);
            work.Add(new KeptWorkPhotograph(id, given, $"work/{id}.jpg"));
        }
        await Put(zip, WorkPicturesName, Json(work));
        ArchiveManifest manifest = new(Format, FormatVersion, now.Plan.Site.Name, [.. files.OrderBy(f => f.Name, StringComparer.Ordinal)]);
        await Everything.Put(zip, ManifestName, Json(manifest), []);
    }

    /// <summary>Brings everything into an empty place.</summary>
    /// <param name="from">The file.</param>
    /// <param name="now">This instant.</param>
    /// <returns>What was brought in, in words.</returns>
    /// <exception cref="InvalidInputException">The place is not empty, or the file is not whole.</exception>
    public async Task<string> Bring(Stream from, Instant now)
    {
        LoadedPlan present = await plans.Now();
        // A palette and recipes are in every new place; what is there of them is kept among the plans that were replaced.
        if (present.Plan.Planters.Count + present.Plan.Lots.Count + present.Aside.Count > 0 || (await weather.Stations()).Count > 0)
            throw new InvalidInputException(
                "file",
                "everything is brought into an empty place only; start with another data folder (MEADOW_DATA) or database (MEADOW_DB), --empty"
            );
        try
        {
            using var zip = new ZipArchive(from, ZipArchiveMode.Read, leaveOpen: true);
            await Check(zip);
            Plan plan = await Read(zip, "plan.json", PlanFile.Read);
            IReadOnlyList<Observation> seen = await Read(zip, "log.csv", s => CsvSheets.ReadLog(s, now.InUtc().Date.PlusDays(1), long.MaxValue));
            KeptStations stations = await Read(zip, "weather/stations.json", From<KeptStations>);
            List<KeptPhotograph> pictures = await Read(zip, "photographs/list.json", From<List<KeptPhotograph>>);
            List<KeptPlan> kept = await Read(zip, "kept-plans/list.json", From<List<KeptPlan>>);
            // Archives of before there were orders hold none.
            SupplyDocument? goods = zip.GetEntry(SupplyName) is null ? null : await Read(zip, SupplyName, SupplyFile.Read);
            List<KeptDeliveryPhotograph> deliveries = zip.GetEntry(DeliveriesName) is null
                ? []
                : await Read(zip, DeliveriesName, From<List<KeptDeliveryPhotograph>>);
            // Nor do those of before there were tasks.
            CrewDocument? told = zip.GetEntry(CrewName) is null ? null : await Read(zip, CrewName, CrewFile.Read);
            List<KeptWorkPhotograph> work = zip.GetEntry(WorkPicturesName) is null
                ? []
                : await Read(zip, WorkPicturesName, From<List<KeptWorkPhotograph>>);
            foreach (string picture in deliveries.Select(p => p.File).Concat(work.Select(p => p.File)))
                Photograph.Kept(await Read(zip, picture, Bytes));
            // All is read before anything is written: a file that is not whole leaves the place empty.
            var records = new List<(Station Station, MonthlyNormals? Normals, IReadOnlyList<WeatherDay> Days)>();
            foreach (KeptStation s in stations.Stations)
                records.Add(
                    (
                        new Station(s.Id, s.Name, s.LatitudeDeg, s.LongitudeDeg, s.ElevationM),
                        s.Normals,
                        s.Days is { } days ? await Read(zip, days, StationSheet.Read) : []
                    )
                );
            var beside = new List<(string Name, Plan Plan)>();
            foreach (KeptPlan k in kept)
                beside.Add((k.Name, await Read(zip, k.File, PlanFile.Read)));
            foreach (KeptPhotograph p in pictures)
                Photograph.Kept(await Read(zip, p.File, Bytes));
            foreach ((Station station, MonthlyNormals? normals, IReadOnlyList<WeatherDay> days) in records)
            {
                if (normals is not null)
                    await weather.SaveNormals(station, normals, now);
                else
                    await weather.Merge(station, days, now);
            }
            await plans.Replace(plan, PlanFile.Write);
            foreach (KeptStation s in stations.Stations.Where(s => s.Removed))
                await weather.Remove(s.Id, now);
            if (stations.InUse is { } inUse)
                await weather.Choose(inUse, stations.Chosen);
            await log.Record(seen);
            foreach (KeptPhotograph p in pictures)
            {
                byte[] jpeg = await Read(zip, p.File, Bytes);
                Photograph read = Photograph.Kept(jpeg);
                await photos.Add(new PlanterPhoto(p.Id, p.PlanterId, p.TakenOn, p.Caption, read.Width, read.Height), jpeg, read.Thumb);
            }
            if (goods is not null)
                await supply.Bring(goods);
            foreach (KeptDeliveryPhotograph p in deliveries)
            {
                byte[] jpeg = await Read(zip, p.File, Bytes);
                await supply.AddPhotograph(p.Id, p.ReceiptId, jpeg, Photograph.Kept(jpeg).Thumb);
            }
            if (told is not null)
                await crew.Bring(told);
            foreach (KeptWorkPhotograph p in work)
            {
                byte[] jpeg = await Read(zip, p.File, Bytes);
                await crew.AddPhotograph(p.Id, p.GivenId, jpeg, Photograph.Kept(jpeg).Thumb, null);
            }
            foreach ((string name, Plan other) in beside)
                await variants.Keep(name, other);
            return (
                $"{plan.Site.Name}: {plan.Planters.Count} planters, {plan.Palette.Count} plants, {plan.Displays.Count} displays, "
                + $"{seen.Count} observations, {stations.Stations.Count} stations, {pictures.Count} photographs, {kept.Count} kept plans"
                + (goods is { Orders.Count: > 0 } ? $", {goods.Orders.Count} orders." : ".")
            );
        }
        catch (InvalidDataException e)
        {
            throw new InvalidInputException("file", $"is no whole file of everything: {e.Message}");
        }
    }

    private static Stream Entry(ZipArchive zip, string name)
    {
        ZipArchiveEntry entry = zip.CreateEntry(name, CompressionLevel.Fastest);
        entry.LastWriteTime = Always;
        return entry.Open();
    }

    // What the archive says of itself is held against what is in it. Archives of before there was a manifest are taken without.
    private static async Task Check(ZipArchive zip)
    {
        if (zip.GetEntry(ManifestName) is null)
            return;
        ArchiveManifest manifest = await Read(zip, ManifestName, From<ArchiveManifest>);
        if (manifest.Format != Format || manifest.Version > FormatVersion)
            throw new InvalidInputException(ManifestName, $"is of a newer version ({manifest.Version}) than this one reads ({FormatVersion})");
        foreach (KeptFile file in manifest.Files)
        {
            await using Stream entry = zip.GetEntry(file.Name)?.Open()
                ?? throw new InvalidInputException("file", $"holds no {file.Name}, which its manifest names");
            if (Convert.ToHexStringLower(await SHA256.HashDataAsync(entry)) != file.Sha256)
                throw new InvalidInputException(file.Name, "is not what was written: the archive is damaged or was changed");
        }
    }

    private static async Task Put(ZipArchive zip, string name, byte[] bytes, List<KeptFile> files)
    {
        files.Add(new KeptFile(name, bytes.Length, Convert.ToHexStringLower(SHA256.HashData(bytes))));
        await using Stream entry = Entry(zip, name);
        await entry.WriteAsync(bytes);
    }

    private static async Task<T> Read<T>(ZipArchive zip, string name, Func<Stream, T> read)
    {
        ZipArchiveEntry entry = zip.GetEntry(name) ?? throw new InvalidInputException("file", $"holds no {name}; it is no file of everything");
        await using Stream stream = entry.Open();
        try
        {
            return read(stream);
        }
        catch (InvalidInputException e)
        {
            throw new InvalidInputException([.. e.Faults.Select(f => f with { Field = $"{name}, {f.Field}" })]);
        }
        catch (JsonException e)
        {
            throw new InvalidInputException(name, PlanFile.FaultOf(e).ToString());
        }
    }

    private static byte[] Bytes(Stream stream)
    {
        using var buffer = new MemoryStream();
        stream.CopyTo(buffer);
        return buffer.ToArray();
    }

    private static byte[] Json<T>(T value) => [.. JsonSerializer.SerializeToUtf8Bytes(value, PlanFile.Options), (byte)'\n'];

    private static T From<T>(Stream stream) => JsonSerializer.Deserialize<T>(stream, PlanFile.Options) ?? throw new JsonException("holds null");
}
