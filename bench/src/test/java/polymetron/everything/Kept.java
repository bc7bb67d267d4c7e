package polymetron.everything;

import polymetron.everything.DocumentFacts.Target;
import tools.jackson.databind.JsonNode;

/** What a register gives that nothing but software changes: SystemRDL 2.0, 9.4 to 9.6, field by field. */
final class Kept {
    private Kept() {}

    /** What is read of a value: the fields that software reads and that keep one. */
    static long reads(DocumentFacts facts, Target target, JsonNode register, long value) {
        long read = 0;
        for (JsonNode field : register.path("fields")) {
            boolean keeps =
                    !field.path("software").asString().equals("write-only")
                            && !field.path("onWrite").asString("").matches("pulse");
            read |= keeps ? value & mask(facts, target, field) : 0;
        }
        return read;
    }

    private static long mask(DocumentFacts facts, Target target, JsonNode field) {
        long bits = facts.number(target.block(), field.path("width"), 1);
        return ((1L << bits) - 1) << facts.number(target.block(), field.path("lowBit"), 0);
    }

    /** What is read after all ones were written. */
    static long after(DocumentFacts facts, Target target, JsonNode register) {
        return after(facts, target, register, 0xFFFF_FFFFL);
    }

    /** What is read after a value was written over the one after reset. */
    static long after(DocumentFacts facts, Target target, JsonNode register, long written) {
        long value = facts.reset(target, register) & 0xFFFF_FFFFL;
        for (JsonNode field : register.path("fields")) {
            long mask = mask(facts, target, field);
            if (field.path("software").asString().equals("read-only")) {
                continue;
            }
            value =
                    switch (field.path("onWrite").asString("store")) {
                        case "store" -> value & ~mask | written & mask;
                        case "clear-ones" -> value & ~(written & mask);
                        case "set-ones" -> value | written & mask;
                        default -> value;
                    };
        }
        return reads(facts, target, register, value);
    }
}
