using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Attachments;

/// <summary>What is said of a file, and what may be shown to a buyer.</summary>
internal static class AttachmentWords
{
    public static string Of(AttachmentRow row) => row.ForBuyer ? "for the buyer" : "inner";

    /// <exception cref="RefusedException">A buyer is shown pictures and PDFs, nothing that runs.</exception>
    public static void MustBeFit(AttachmentRow row)
    {
        if (row.ForBuyer && !FileTypes.IsShown(row.ContentType))
            throw RefusedException.Bad(
                "file_type",
                "Buyers are shown pictures and PDFs; keep this one for the house.",
                "file"
            );
    }
}
