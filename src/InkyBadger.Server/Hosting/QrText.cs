using QRCoder;

namespace InkyBadger.Server.Hosting;

/// <summary>A link as a picture of blocks for a console, to be pointed at with a phone.</summary>
public static class QrText
{
    public static string Of(string link)
    {
        using var made = QRCodeGenerator.GenerateQrCode(link, QRCodeGenerator.ECCLevel.M);
        using var picture = new AsciiQRCode(made);
        // Light on a dark console and dark on a light one are both read: the quiet zone comes with it.
        return picture.GetGraphicSmall();
    }
}
