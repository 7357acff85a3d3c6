using System.Globalization;
using System.Net;

namespace ZestyPocket.Server.Keeping.Books;

/// <summary>
/// Writes a book as one HTML file that is leafed through with the keyboard, the buttons or a finger, from a disk and
/// with no network: pictures, styles and script lie in it.
/// </summary>
public static class FlipThrough
{
    /// <summary>The file up to its first page.</summary>
    public static string Begin(string title) =>
        $$"""
            <!doctype html>
            <html lang="en">
            <head>
            <meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1">
            <meta http-equiv="Content-Security-Policy"
              content="default-src 'none'; img-src data:; style-src 'unsafe-inline'; script-src 'unsafe-inline'">
            <title>{{WebUtility.HtmlEncode(title)}}</title>
            <style>
            :root { color-scheme: light dark; }
            body { margin: 0; font: 1rem/1.5 system-ui, sans-serif; background: #2f3d46; color: #fff; }
            h1 { font-size: 1.1rem; margin: 0; }
            header, footer {
              display: flex; flex-wrap: wrap; gap: .75rem; align-items: center; justify-content: center;
              padding: .6rem 1rem;
            }
            button, select {
              font: inherit; padding: .4rem .9rem; border: 1px solid #fff; border-radius: .4rem;
              background: #1f2a31; color: #fff;
            }
            button:focus-visible, select:focus-visible, summary:focus-visible {
              outline: 3px solid #ffb066; outline-offset: 2px;
            }
            button:disabled { color: #b9c2c8; border-color: #8b979e; }
            main { padding: 0 1rem; }
            figure { margin: 0 auto; text-align: center; }
            figure[hidden] { display: none; }
            img {
              max-width: 100%; max-height: calc(100vh - 11rem); background: #fffdf6;
              box-shadow: 0 .3rem 1.2rem rgb(0 0 0 / .45);
            }
            figcaption { max-width: 50rem; margin: .6rem auto; text-align: left; white-space: pre-line; }
            @media print {
              header, footer { display: none; }
              figure[hidden] { display: block; break-after: page; }
              body { background: none; color: #000; }
            }
            </style>
            </head>
            <body>
            <header><h1>{{WebUtility.HtmlEncode(title)}}</h1></header>
            <main id="book">

            """;

    /// <summary>One page with its picture.</summary>
    /// <param name="jpeg">The picture.</param>
    public static string Page(int index, BookPage page, byte[] jpeg)
    {
        ArgumentNullException.ThrowIfNull(page);
        var words = WebUtility.HtmlEncode(string.Join("\n\n", page.Words));
        var caption =
            words.Length == 0 ? string.Empty : $"<details><summary>Words on this page</summary>{words}</details>";
        var (title, described) = (WebUtility.HtmlEncode(page.Title), WebUtility.HtmlEncode(page.Described));
        return string.Create(
            CultureInfo.InvariantCulture,
            $"<figure id=\"p{index}\"{(index == 0 ? "" : " hidden")} data-title=\"{title}\">"
                + $"<img alt=\"{described}\" src=\"data:image/jpeg;base64,{Convert.ToBase64String(jpeg)}\">"
                + $"<figcaption>{caption}</figcaption></figure>\n"
        );
    }

    /// <summary>The file after its last page.</summary>
    public static string End() =>
        """
            </main>
            <footer>
            <button id="back" type="button">‹ Back</button>
            <label>Go to <select id="goto"></select></label>
            <span id="where" role="status"></span>
            <button id="next" type="button">Next ›</button>
            </footer>
            <script>
            'use strict'
            const pages = [...document.querySelectorAll('figure')]
            const [back, next, where, goto] = ['back', 'next', 'where', 'goto'].map((id) => document.getElementById(id))
            goto.add(new Option('Cover', 0))
            pages.forEach((page, i) => page.dataset.title && goto.add(new Option(page.dataset.title, i)))
            let at = Math.min(pages.length - 1, Math.max(0, parseInt(location.hash.slice(1), 10) - 1 || 0))
            function show(to) {
              at = Math.min(pages.length - 1, Math.max(0, to))
              pages.forEach((page, i) => { page.hidden = i !== at })
              back.disabled = at === 0
              next.disabled = at === pages.length - 1
              where.textContent = `Page ${at + 1} of ${pages.length}`
              const begun = [...goto.options].filter((o) => Number(o.value) <= at)
              goto.value = begun[begun.length - 1].value
              history.replaceState(null, '', `#${at + 1}`)
            }
            back.onclick = () => show(at - 1)
            next.onclick = () => show(at + 1)
            goto.onchange = () => show(Number(goto.value))
            addEventListener('keydown', (e) => {
              if (e.target === goto) return
              const step = { ArrowRight: 1, PageDown: 1, ArrowLeft: -1, PageUp: -1 }[e.key]
              if (step) show(at + step)
              else if (e.key === 'Home') show(0)
              else if (e.key === 'End') show(pages.length - 1)
              else return
              e.preventDefault()
            })
            let down = null
            addEventListener('pointerdown', (e) => { down = e.clientX })
            addEventListener('pointerup', (e) => {
              if (down !== null && Math.abs(e.clientX - down) > 60) show(at + (e.clientX < down ? 1 : -1))
              down = null
            })
            show(at)
            </script>
            </body>
            </html>

            """;
}
