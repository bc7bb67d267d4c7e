package polymetron.bench.block;

/** The platform's fingerprint, in two words. */
final class IdentityModel extends BlockModel {
    private final long fingerprint;

    /**
     * @param fingerprint sixteen hexadecimal digits
     */
    IdentityModel(String fingerprint) {
        this.fingerprint = Long.parseUnsignedLong(fingerprint, 16);
    }

    @Override
    protected void clear() {}

    @Override
    public int read(int offset) {
        return switch (offset) {
            case 0x00 -> (int) (fingerprint >>> 32);
            case 0x04 -> (int) fingerprint;
            default -> 0;
        };
    }

    @Override
    public void write(int offset, int value, int mask) {}
}
