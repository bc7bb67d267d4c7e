package polymetron.library;

import java.util.List;
import polymetron.expression.Expression;

/**
 * A parameter of a block type.
 *
 * @param name the name that expressions use
 * @param title what a person calls it
 * @param form what its values are
 * @param initial the value when none is chosen; an expression, or the text itself for a choice
 * @param minimum lowest number allowed, inclusive; null for none
 * @param maximum highest number allowed, inclusive; null for none
 * @param multipleOf the number must be a multiple of this; null for any
 * @param unit unit of the number, such as {@code bytes} or {@code Bd}; null for none
 * @param choices the allowed texts of a choice
 * @param explains what the parameter changes
 * @param macro name under which software gets the value, behind that of the block; null when software has no use for it
 */
public record ParameterType(
        String name,
        String title,
        Form form,
        String initial,
        Expression minimum,
        Expression maximum,
        Expression multipleOf,
        String unit,
        List<Choice> choices,
        String explains,
        String macro) {

    /** What the values of a parameter are. */
    public enum Form {
        INTEGER("integer"),
        ADDRESS("address"),
        SIZE("size"),
        BOOLEAN("boolean"),
        CHOICE("choice"),
        REAL("real"),
        TEXT("text"),
        /** A list of whole numbers with commas between; the limits are those of each. */
        NUMBERS("numbers");

        private final String word;

        Form(String word) {
            this.word = word;
        }

        /** Whether the value is the text itself rather than an expression. */
        public boolean isText() {
            return this == CHOICE || this == TEXT || this == NUMBERS;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    /** One allowed text of a choice and what it means. */
    public record Choice(String value, String title) {}

    public ParameterType {
        choices = Lists.orEmpty(choices);
    }

    /** Whether only powers of two are allowed: a power of two is a multiple of what its logarithm gives. */
    public boolean isPowerOfTwo() {
        return multipleOf != null
                && multipleOf.toString().equals("1 << $clog2(%s)".formatted(name));
    }

    /** Whether a text can stand in every output as it is: printable ASCII without quotes and backslashes. */
    public static boolean isPlainText(String text) {
        return text.chars()
                .allMatch(each -> each >= ' ' && each < 127 && each != '"' && each != 92);
    }
}
