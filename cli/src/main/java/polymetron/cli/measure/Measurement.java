package polymetron.cli.measure;

/** One thing whose speed matters, beside what it is compared with. */
interface Measurement {
    String title();

    /** Measures; returns a paragraph or a table in Markdown. */
    String measure() throws Exception;
}
