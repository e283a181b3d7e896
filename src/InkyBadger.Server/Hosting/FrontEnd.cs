using Microsoft.Extensions.FileProviders;

namespace InkyBadger.Server.Hosting;

public static class FrontEnd
{
    /// <summary>Serves the built front end; hashed files may be kept for ever, the page itself is always asked for.</summary>
    public static void UseFrontEnd(this WebApplication app, string folder)
    {
        if (!Directory.Exists(folder))
            return;
        var files = new PhysicalFileProvider(folder);
        app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = files,
                OnPrepareResponse = c =>
                    c.Context.Response.Headers.CacheControl = c.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );
    }
}
