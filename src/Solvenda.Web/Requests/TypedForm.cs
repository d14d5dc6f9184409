using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;

namespace Solvenda.Web.Requests;

/// <summary>Reads what somebody typed, with its files, from a form that a browser sent.</summary>
internal static class TypedForm
{
    /// <summary>Of the whole form: the files and the words.</summary>
    public const long LargestBody = TypedRequest.MostBytes + (1024 * 1024);

    public static async Task<(TypedRequest Typed, IFormCollection Form)> ReadAsync(
        HttpRequest http,
        string channel,
        CancellationToken cancel
    )
    {
        if (!http.HasFormContentType)
            throw RefusedException.Bad("form_missing", "It is sent as a form; nothing was kept.");
        IFormCollection form;
        try
        {
            form = await http.ReadFormAsync(cancel);
        }
        catch (InvalidDataException e)
        {
            throw RefusedException.Bad("form_missing", $"The form could not be read: {e.Message} Nothing was kept.");
        }
        var files = ImmutableArray.CreateBuilder<TypedFile>();
        foreach (var file in form.Files.Take(TypedRequest.MostFiles + 1))
        {
            using var bytes = new MemoryStream();
            await file.CopyToAsync(bytes, cancel);
            files.Add(new TypedFile(NameOf(file), TypeOf(file), bytes.ToArray()));
        }
        string Said(string name) => form[name].ToString();
        return (
            new TypedRequest(
                channel,
                Said("who"),
                Said("mail"),
                Said("kind") == "order",
                Said("poNumber"),
                Said("wanted"),
                Said("text"),
                files.ToImmutable()
            ),
            form
        );
    }

    private static string NameOf(IFormFile file)
    {
        var plain = new string([.. Path.GetFileName(file.FileName).Where(c => !char.IsControl(c))]);
        return plain.Length is 0 or > 120 ? "picture" : plain;
    }

    private static string TypeOf(IFormFile file) =>
        MimeKit.ContentType.TryParse(file.ContentType ?? "", out var type) ? type.MimeType : "application/octet-stream";
}
