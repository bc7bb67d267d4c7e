package polymetron.bench.block;

/** A model of a user's block that runs outside of this process, with its lines by the names of its ports. */
public abstract class OwnBlockModel extends BlockModel implements AutoCloseable {
    /** What the block drives at one of its ports; 0 where it has none of the name. */
    public abstract long level(String port);

    /** The clock input whose cycles it counts. */
    public abstract String clock();

    /** Sets what comes in at a port. */
    public abstract void set(String port, long levels);

    /** Ends the process. */
    @Override
    public abstract void close();
}
