using System.Text.Json;
using Solvenda.Acts.Acting;
using Solvenda.Core.Reading;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Ways;

/// <summary>How a setting of a way in is typed.</summary>
public enum SettingKind
{
    Text,
    Number,

    /// <summary>A code of UN/ECE Rec 20, or a word for one.</summary>
    Unit,

    /// <summary>Kept sealed, and never shown again.</summary>
    Secret,
}

/// <summary>Something that a way in asks to be told.</summary>
/// <param name="Usual">What holds where nothing is said.</param>
/// <param name="OfBuyer">Whether it is said of one buyer, and not of the way.</param>
/// <param name="Most">Of a number, which is at least nothing.</param>
public sealed record WaySetting(
    string Name,
    string Words,
    SettingKind Kind = SettingKind.Text,
    string Usual = "",
    bool OfBuyer = false,
    int Most = 0
);

/// <summary>A way in: what it is, and what it asks to be told. Each is listed once, where the program starts.</summary>
public interface IWayIn
{
    /// <summary>As requests say that they came by it.</summary>
    string Name { get; }

    /// <summary>What it is, in two or three words.</summary>
    string Words { get; }

    IReadOnlyList<WaySetting> Settings => [];

    /// <summary>Whether it brings what its own customers bought and paid: only such a way is believed in
    /// that.</summary>
    bool Sells => false;
}

/// <summary>Seals what nobody may read in the database.</summary>
public interface ISecretBox
{
    string Seal(string secret);

    /// <summary>Empty where it was sealed by another house's key.</summary>
    string Open(string sealedSecret);
}

/// <summary>What was said of settings.</summary>
public static class WaySettings
{
    private const int MostLetters = 300;

    public static IReadOnlyDictionary<string, string> Of(WayRow? way) =>
        way is null || way.Settings.Length == 0
            ? new Dictionary<string, string>()
            : JsonSerializer.Deserialize<Dictionary<string, string>>(way.Settings)!;

    /// <summary>A number as said, else the usual one of the setting.</summary>
    public static int Number(IReadOnlyDictionary<string, string> said, WaySetting setting)
    {
        ArgumentNullException.ThrowIfNull(said);
        ArgumentNullException.ThrowIfNull(setting);
        return int.TryParse(said.GetValueOrDefault(setting.Name, setting.Usual), out var number) ? number : 0;
    }

    /// <summary>Writes what was typed onto a way; a secret that was not typed stays as it is.</summary>
    internal static void Take(
        WayRow way,
        IReadOnlyDictionary<string, string> typed,
        IReadOnlyList<WaySetting> settings,
        ISecretBox box
    )
    {
        var before = Of(way);
        var said = new Dictionary<string, string>();
        foreach (var setting in settings.Where(s => s.OfBuyer == way.BuyerId is not null))
        {
            var text = typed.GetValueOrDefault(setting.Name, "").Trim();
            if (text.Length > MostLetters)
                throw No(setting, $"has at most {MostLetters} letters");
            if (
                setting.Kind == SettingKind.Number
                && text.Length > 0
                && !(int.TryParse(text, out var number) && number >= 0 && number <= setting.Most)
            )
                throw No(setting, $"is a whole number from 0 to {setting.Most}");
            if (setting.Kind == SettingKind.Unit && text.Length > 0)
                text = DocumentReader.UnitOf(text, null) is { } unit
                    ? unit.Code
                    : throw No(setting, "is a unit, as EA, MTR or a word for one");
            if (setting.Kind == SettingKind.Secret)
                text = text.Length > 0 ? box.Seal(text) : before.GetValueOrDefault(setting.Name, "");
            if (text.Length > 0)
                said[setting.Name] = text;
        }
        way.Settings = said.Count == 0 ? "" : JsonSerializer.Serialize(said);
    }

    private static RefusedException No(WaySetting setting, string must) =>
        RefusedException.Bad("way_setting", $"“{setting.Words}” {must}; nothing was changed.", setting.Name);
}
