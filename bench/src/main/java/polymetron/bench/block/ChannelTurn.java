package polymetron.bench.block;

/** Channels whose samples follow each other in a stream. What is dropped counts as well; work begins with the first channel. */
final class ChannelTurn {
    private final int channels;
    private int channel;
    private boolean used;

    ChannelTurn(int channels) {
        this.channels = channels;
    }

    int channel() {
        return channel;
    }

    boolean isFirst() {
        return channel == 0;
    }

    boolean isLast() {
        return channel == channels - 1;
    }

    /** Whether samples have been worked on since it was switched on. */
    boolean isUsed() {
        return used;
    }

    void setUsed(boolean isUsed) {
        used = isUsed;
    }

    /** Whether a sample that comes now is worked on; the first channel decides for all. */
    boolean works(boolean enabled) {
        return channel == 0 ? enabled : used;
    }

    void next() {
        channel = isLast() ? 0 : channel + 1;
    }

    void clear() {
        channel = 0;
        used = false;
    }
}
