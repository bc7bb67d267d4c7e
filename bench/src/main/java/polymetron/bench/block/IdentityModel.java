package polymetron.bench.block;

/** The platform's fingerprint, in two words. */
final class IdentityModel extends BankModel {
    /**
     * @param fingerprint sixteen hexadecimal digits
     */
    IdentityModel(RegisterBank bank, String fingerprint) {
        super(bank);
        long value = Long.parseUnsignedLong(fingerprint, 16);
        bank.readAt(0, 0).gives(() -> value >>> 32);
        bank.readAt(4, 0).gives(() -> value);
    }
}
