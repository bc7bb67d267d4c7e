package polymetron.output.image;

import java.util.Arrays;
import java.util.OptionalLong;

/** Reads Intel HEX (Intel Hexadecimal Object File Format Specification, revision A, 1988), all record types of it. */
final class IntelHexReader {
    private static final int DATA = 0;
    private static final int END = 1;
    private static final int SEGMENT_ADDRESS = 2;
    private static final int SEGMENT_START = 3;
    private static final int LINEAR_ADDRESS = 4;
    private static final int LINEAR_START = 5;

    /** Count, two bytes of address, type, checksum. */
    private static final int FRAME = 5;

    private final RecordedBytes recorded = new RecordedBytes();
    private long base;
    private OptionalLong entry = OptionalLong.empty();
    private boolean ended;

    private IntelHexReader() {}

    static ProgramFile read(byte[] bytes) {
        IntelHexReader reader = new IntelHexReader();
        RecordLines.each(bytes, reader::line);
        if (!reader.ended) {
            throw new ProgramFileException(
                    "the file has no end record (:00000001FF): it was cut off");
        }
        return reader.recorded.program(reader.entry);
    }

    private void line(int number, String line) {
        if (ended) {
            throw RecordLines.wrong(number, "it comes after the end record");
        }
        if (line.charAt(0) != ':') {
            throw RecordLines.wrong(number, "it does not begin with ':'");
        }
        byte[] record = RecordLines.bytes(number, line, 1);
        if (record.length < FRAME || record.length != FRAME + (record[0] & 0xFF)) {
            throw RecordLines.wrong(
                    number,
                    record.length < FRAME
                            ? "it was cut off"
                            : "it has %s bytes of data and says %s"
                                    .formatted(record.length - FRAME, record[0] & 0xFF));
        }
        int sum = 0;
        for (byte each : record) {
            sum += each;
        }
        if ((sum & 0xFF) != 0) {
            throw RecordLines.wrong(
                    number,
                    "the checksum is %02X, and that of its bytes is %02X"
                            .formatted(
                                    record[record.length - 1] & 0xFF,
                                    record[record.length - 1] - sum & 0xFF));
        }
        record(number, record);
    }

    private void record(int number, byte[] record) {
        int count = record[0] & 0xFF;
        long offset = RecordLines.number(record, 1, 2);
        int type = record[3] & 0xFF;
        switch (type) {
            case DATA ->
                    recorded.add(base + offset, Arrays.copyOfRange(record, 4, 4 + count), number);
            case END -> ended = true;
            case SEGMENT_ADDRESS -> base = value(number, record, 2) << 4;
            case LINEAR_ADDRESS -> base = value(number, record, 2) << 16;
            case SEGMENT_START -> {
                long start = value(number, record, 4);
                entry = OptionalLong.of(((start >>> 16) << 4) + (start & 0xFFFF));
            }
            case LINEAR_START -> entry = OptionalLong.of(value(number, record, 4));
            default ->
                    throw RecordLines.wrong(
                            number, "there is no record type %02X; 00 to 05 are".formatted(type));
        }
    }

    private static long value(int number, byte[] record, int bytes) {
        if ((record[0] & 0xFF) != bytes) {
            throw RecordLines.wrong(
                    number,
                    "a record of type %02X has %s bytes of data".formatted(record[3], bytes));
        }
        return RecordLines.number(record, 4, bytes);
    }
}
