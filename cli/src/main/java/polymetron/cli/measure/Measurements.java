package polymetron.cli.measure;

import java.io.PrintWriter;

/** All measurements, one after the other. */
public final class Measurements {
    private Measurements() {}

    /** Measures and returns the report as Markdown. */
    public static String run(PrintWriter progress) throws Exception {
        return "";
    }
}
