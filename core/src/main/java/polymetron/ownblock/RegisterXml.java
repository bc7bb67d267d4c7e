package polymetron.ownblock;

import java.io.IOException;
import java.io.StringReader;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.InputSource;
import org.xml.sax.SAXException;
import polymetron.expression.Expression;
import polymetron.expression.ExpressionException;
import polymetron.json.DocumentException;
import polymetron.json.Documents;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/**
 * Registers of the memory map of a component as IEEE 1685 describes it, 2009 and 2014 alike: address blocks, register files, registers
 * with their dimension, and fields with access, effect of a write or read, and reset value (element names from memory). What a
 * definition cannot say is refused by name; fields that are reserved are left out.
 */
public final class RegisterXml {
    private static final int MOST_REGISTERS = 100_000;
    private static final int DEEPEST = 8;

    private static final Map<String, String> ACCESS =
            Map.of(
                    "read-write", "read-write",
                    "read-only", "read-only",
                    "write-only", "write-only",
                    "read-writeOnce", "read-write",
                    "writeOnce", "write-only");

    private static final Map<String, String> ON_WRITE =
            Map.of("oneToClear", "clear-ones", "oneToSet", "set-ones");

    private final ArrayNode registers = JsonNodeFactory.instance.arrayNode();

    /** Register files that were gone through: rows of empty ones in one another would never come to an end. */
    private int files;

    private RegisterXml() {}

    /**
     * Registers as a definition has them.
     *
     * @return the text of a JSON array
     * @throws DocumentException when it cannot be read; the message names the register or field
     */
    public static String read(String text) {
        RegisterXml xml = new RegisterXml();
        Element component = parse(text);
        List<Element> blocks = new ArrayList<>();
        for (Element maps : children(component, "memoryMaps")) {
            for (Element map : children(maps, "memoryMap")) {
                blocks.addAll(children(map, "addressBlock"));
            }
        }
        for (Element block : blocks) {
            xml.block(block, number(block, "baseAddress", "the address block").orElse(0L), "", 0);
        }
        if (xml.registers.isEmpty()) {
            throw new DocumentException(
                    "there is no register in it; a component of IEEE 1685 has memoryMaps,"
                            + " memoryMap, addressBlock, register",
                    "");
        }
        return Documents.write(xml.registers);
    }

    /** Nothing outside of the text is read, and there are no entities. */
    private static Element parse(String text) {
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newDefaultInstance();
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setNamespaceAware(true);
            DocumentBuilder builder = factory.newDocumentBuilder();
            builder.setErrorHandler(null);
            return builder.parse(new InputSource(new StringReader(text))).getDocumentElement();
        } catch (SAXException wrong) {
            throw new DocumentException("it is no XML: " + wrong.getMessage(), "");
        } catch (ParserConfigurationException | IOException failure) {
            throw new IllegalStateException(failure);
        }
    }

    private static List<Element> children(Element of, String name) {
        List<Element> found = new ArrayList<>();
        for (Node at = of.getFirstChild(); at != null; at = at.getNextSibling()) {
            if (at instanceof Element element && name.equals(element.getLocalName())) {
                found.add(element);
            }
        }
        return found;
    }

    private static Optional<Element> child(Element of, String name) {
        return children(of, name).stream().findFirst();
    }

    private static String text(Element of, String name) {
        return child(of, name).map(each -> each.getTextContent().strip()).orElse("");
    }

    private static String name(Element of) {
        return RegisterTable.name(text(of, "name"));
    }

    private static DocumentException wrong(String where, String what, Object... values) {
        return new DocumentException("%s: %s".formatted(where, what.formatted(values)), "");
    }

    private static Optional<Long> number(Element of, String element, String where) {
        String text = text(of, element);
        return text.isEmpty() ? Optional.empty() : Optional.of(number(text, element, where));
    }

    /** As SystemVerilog writes it, or with 0x. */
    private static long number(String text, String element, String where) {
        try {
            String plain = text.replace("_", "").replaceFirst("^(?:0[xX]|#)", "'h");
            BigInteger value =
                    Expression.parse(plain)
                            .evaluate(
                                    name -> {
                                        throw new ExpressionException(
                                                "%s is a parameter; write its value"
                                                        .formatted(name));
                                    })
                            .asNumber();
            if (value.signum() < 0 || value.bitLength() > Long.SIZE) {
                throw wrong(where, "%s of %s is out of range", text, element);
            }
            return value.longValue();
        } catch (ExpressionException | ArithmeticException noNumber) {
            throw wrong(where, "%s is no number: %s", element, noNumber.getMessage());
        }
    }

    /** An address block or a register file, with all that is in it. */
    private void block(Element block, long base, String prefix, int depth) {
        if (depth > DEEPEST) {
            throw wrong(prefix, "register files lie in one another more than %s deep", DEEPEST);
        }
        String access = text(block, "access");
        for (Element file : children(block, "registerFile")) {
            String its = prefix + name(file) + "_";
            long offset = base + number(file, "addressOffset", its).orElse(0L);
            long rows = number(file, "dim", its).orElse(1L);
            long range = number(file, "range", its).orElse(0L);
            for (long row = 0; row < rows; row++) {
                if (++files > MOST_REGISTERS) {
                    throw wrong(its, "there are more than %s register files", MOST_REGISTERS);
                }
                String one = rows == 1 ? its : prefix + name(file) + row + "_";
                block(file, offset + row * range, one, depth + 1);
            }
        }
        for (Element register : children(block, "register")) {
            register(register, base, prefix, access);
        }
    }

    private void register(Element register, long base, String prefix, String inherited) {
        String name = prefix + name(register);
        if (registers.size() >= MOST_REGISTERS) {
            throw wrong(name, "there are more than %s registers", MOST_REGISTERS);
        }
        long width = number(register, "size", name).orElse(32L);
        if (width != 8 && width != 16 && width != 32 && width != 64) {
            throw wrong(name, "it has %s bits; 8, 16, 32 or 64 are possible", width);
        }
        List<Element> dimensions = children(register, "dim");
        if (dimensions.size() > 1) {
            throw wrong(name, "it has several dimensions; one is possible");
        }
        ObjectNode made = registers.addObject();
        made.put("name", name);
        made.put("offset", base + number(register, "addressOffset", name).orElse(0L));
        if (width != 32) {
            made.put("width", width);
        }
        number(register, "dim", name).filter(rows -> rows > 1).ifPresent(r -> made.put("count", r));
        made.put("explains", line(register));
        ArrayNode fields = made.putArray("fields");
        String own = text(register, "access");
        String access = own.isEmpty() ? inherited : own;
        // In the edition of 2009 the value after reset is that of the register.
        Optional<Element> whole = child(register, "reset");
        long reset = whole.flatMap(each -> number(each, "value", name)).orElse(0L);
        for (Element field : children(register, "field")) {
            if (!name(field).matches("(RESERVED|RSVD|UNUSED).*")) {
                field(field, fields.addObject(), name, access, whole.isPresent() ? reset : -1);
            }
        }
        if (children(register, "field").isEmpty()) {
            ObjectNode all = fields.addObject();
            all.put("name", "VALUE");
            all.put("lowBit", 0);
            all.put("width", width);
            access(all, name, access, register);
            if (whole.isPresent()) {
                reset(all, reset);
            }
            all.put("explains", "");
        }
    }

    /**
     * @param ofRegister value of the register after reset; negative where it says none
     */
    private void field(
            Element field, ObjectNode made, String register, String inherited, long ofRegister) {
        String where = register + "." + name(field);
        made.put("name", name(field));
        long low = number(field, "bitOffset", where).orElse(0L);
        long bits = number(field, "bitWidth", where).orElse(1L);
        if (low > 63 || bits < 1 || low + bits > 64) {
            throw wrong(where, "bits %s to %s are beyond 64", low, low + bits - 1);
        }
        made.put("lowBit", low);
        if (bits > 1) {
            made.put("width", bits);
        }
        String own = text(field, "access");
        access(made, where, own.isEmpty() ? inherited : own, field);
        Optional<Long> reset =
                child(field, "resets")
                        .flatMap(each -> child(each, "reset"))
                        .flatMap(each -> number(each, "value", where));
        if (reset.isPresent()) {
            reset(made, reset.get());
        } else if (ofRegister >= 0) {
            long ones = bits == 64 ? -1 : (1L << bits) - 1;
            reset(made, ofRegister >>> low & ones);
        }
        made.put("explains", line(field));
    }

    private static void reset(ObjectNode made, long value) {
        if (value > 0) {
            made.put("reset", value);
        } else if (value < 0) {
            made.put("reset", "64'h" + Long.toHexString(value));
        }
    }

    /** What software and the block do with a field. */
    private void access(ObjectNode made, String where, String access, Element of) {
        String software = ACCESS.get(access.isEmpty() ? "read-write" : access);
        if (software == null) {
            throw wrong(where, "there is no access '%s'", access);
        }
        made.put("software", software);
        String onWrite = text(of, "modifiedWriteValue");
        if (!onWrite.isEmpty() && !onWrite.equals("modify")) {
            String word = ON_WRITE.get(onWrite);
            if (word == null) {
                throw wrong(
                        where,
                        "a write that does %s cannot be described here; oneToClear and oneToSet"
                                + " can",
                        onWrite);
            }
            made.put("onWrite", word);
        }
        String onRead = text(of, "readAction");
        if (!onRead.isEmpty() && !onRead.equals("modify")) {
            if (!onRead.equals("clear")) {
                throw wrong(where, "a read that does %s cannot be described here", onRead);
            }
            made.put("onRead", "clear");
        }
        boolean clears = onRead.equals("clear") || onWrite.equals("oneToClear");
        boolean changes = text(of, "volatile").equals("true");
        String hardware =
                clears
                        ? "set"
                        : software.equals("read-only")
                                ? "value"
                                : changes && software.equals("read-write") ? "load" : "";
        if (!hardware.isEmpty()) {
            made.put("hardware", hardware);
        }
    }

    private static String line(Element of) {
        return text(of, "description").replaceAll("\\s+", " ").strip();
    }
}
