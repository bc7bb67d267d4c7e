package polymetron.output.image;

import java.util.Arrays;
import java.util.OptionalLong;

/** Reads Motorola S-records with addresses of 16, 24 and 32 bits. */
final class SRecordReader {
    private final RecordedBytes recorded = new RecordedBytes();
    private OptionalLong entry = OptionalLong.empty();
    private int dataRecords;
    private boolean ended;

    private SRecordReader() {}

    static ProgramFile read(byte[] bytes) {
        SRecordReader reader = new SRecordReader();
        RecordLines.each(bytes, reader::line);
        if (!reader.ended) {
            throw new ProgramFileException(
                    "the file has no termination record (S7, S8 or S9): it was cut off");
        }
        return reader.recorded.program(reader.entry);
    }

    private void line(int number, String line) {
        if (ended) {
            throw RecordLines.wrong(number, "it comes after the termination record");
        }
        int type = line.length() < 2 ? -1 : line.charAt(1) - '0';
        if (line.charAt(0) != 'S' || type < 0 || type > 9 || type == 4) {
            throw RecordLines.wrong(number, "it begins with none of S0 to S3 and S5 to S9");
        }
        byte[] record = RecordLines.bytes(number, line, 2);
        int address = addressBytes(type);
        if (record.length < 1 || record.length != 1 + (record[0] & 0xFF)) {
            throw RecordLines.wrong(
                    number,
                    "it has %s bytes after its count and says %s"
                            .formatted(
                                    Math.max(0, record.length - 1),
                                    record.length < 1 ? "nothing" : record[0] & 0xFF));
        }
        if (record.length < 2 + address) {
            throw RecordLines.wrong(number, "it is too short for an address and a checksum");
        }
        int sum = 0;
        for (int at = 0; at < record.length - 1; at++) {
            sum += record[at];
        }
        int check = record[record.length - 1] & 0xFF;
        if ((~sum & 0xFF) != check) {
            throw RecordLines.wrong(
                    number,
                    "the checksum is %02X, and that of its bytes is %02X"
                            .formatted(check, ~sum & 0xFF));
        }
        record(number, type, address, record);
    }

    private static int addressBytes(int type) {
        return switch (type) {
            case 2, 6, 8 -> 3;
            case 3, 7 -> 4;
            default -> 2;
        };
    }

    private void record(int number, int type, int addressBytes, byte[] record) {
        long address = RecordLines.number(record, 1, addressBytes);
        switch (type) {
            case 1, 2, 3 -> {
                dataRecords++;
                recorded.add(
                        address,
                        Arrays.copyOfRange(record, 1 + addressBytes, record.length - 1),
                        number);
            }
            case 5, 6 -> {
                if (address != dataRecords) {
                    throw RecordLines.wrong(
                            number,
                            "it counts %s data records, and %s came before it"
                                    .formatted(address, dataRecords));
                }
            }
            case 7, 8, 9 -> {
                ended = true;
                entry = OptionalLong.of(address);
            }
            default -> {}
        }
    }
}
