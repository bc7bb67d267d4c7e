package polymetron.bench.part;

/**
 * A temperature sensor on a two-wire bus, device 0x48: a pointer, then registers of two bytes, the higher first. Register 0 is the
 * temperature in 1/256 degrees, which falls by 1/16 degree each time it is read; register 1 can be written; what else there is
 * reads as 0.
 */
public final class Thermometer implements I2cPart {
    private static final int DEVICE = 0x48;
    private static final int TEMPERATURE = 0x1580;
    private static final int STEP = 16;
    private static final int LIMIT = 0x5000;

    private int temperature;
    private int limit;
    private int pointer;
    private boolean active;
    private boolean reads;
    private int bytes;
    private int gives;

    public Thermometer() {
        reset();
    }

    @Override
    public void reset() {
        temperature = TEMPERATURE;
        limit = LIMIT;
        pointer = 0;
        active = false;
    }

    @Override
    public void start() {
        active = true;
        reads = false;
        bytes = 0;
    }

    @Override
    public void stop() {
        active = false;
    }

    @Override
    public boolean write(int value) {
        if (!active || reads) {
            return false;
        }
        if (bytes == 0) {
            active = value >> 1 == DEVICE;
            reads = (value & 1) != 0;
            if (active && reads) {
                gives = pointer == 0 ? temperature : pointer == 1 ? limit : 0;
                temperature = pointer == 0 ? temperature - STEP & 0xFFFF : temperature;
            }
        } else if (bytes == 1) {
            pointer = value;
        } else if (pointer == 1 && bytes == 2) {
            limit = limit & 0xFF | value << 8;
        } else if (pointer == 1 && bytes == 3) {
            limit = limit & 0xFF00 | value;
        }
        bytes++;
        return active;
    }

    @Override
    public int read(boolean acknowledged) {
        if (!active || !reads) {
            return 0xFF;
        }
        int value = gives >> 8 & 0xFF;
        gives = gives << 8 & 0xFFFF;
        active = acknowledged;
        return value;
    }
}
