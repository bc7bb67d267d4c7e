package polymetron.output.hardware;

/** What those who get generated hardware may do with it. */
final class License {
    static final String TEXT =
            """
            Zero-Clause BSD (0BSD)

            Permission to use, copy, modify, and/or distribute the files in this folder for any purpose with or
            without fee is hereby granted.

            THE FILES ARE PROVIDED "AS IS" AND THE AUTHORS DISCLAIM ALL WARRANTIES WITH REGARD TO THEM INCLUDING
            ALL IMPLIED WARRANTIES OF MERCHANTABILITY AND FITNESS. IN NO EVENT SHALL THE AUTHORS BE LIABLE FOR
            ANY SPECIAL, DIRECT, INDIRECT, OR CONSEQUENTIAL DAMAGES OR ANY DAMAGES WHATSOEVER RESULTING FROM LOSS
            OF USE, DATA OR PROFITS, WHETHER IN AN ACTION OF CONTRACT, NEGLIGENCE OR OTHER TORTIOUS ACTION,
            ARISING OUT OF OR IN CONNECTION WITH THE USE OR PERFORMANCE OF THESE FILES.
            """;

    private License() {}
}
