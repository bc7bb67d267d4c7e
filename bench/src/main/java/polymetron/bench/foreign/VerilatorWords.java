package polymetron.bench.foreign;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import polymetron.output.hardware.Keywords;

/** What Verilator says, with what a person would have to know besides. */
final class VerilatorWords {
    private static final Pattern UNEXPECTED = Pattern.compile("syntax error, unexpected (\\w+)");

    private VerilatorWords() {}

    /** Verilator reads all files as SystemVerilog: names that are legal in Verilog can be words there. */
    static String explained(String said) {
        Matcher match = UNEXPECTED.matcher(said);
        return match.find() && Keywords.isKeyword(match.group(1))
                ? "%s; if it is a name: %s is a word of SystemVerilog, as which Verilator reads all files, so rename it"
                        .formatted(said, match.group(1))
                : said;
    }
}
