package polymetron.server.store;

/** Who makes the change that is being stored. */
public interface CurrentAuthor {
    Author get();
}
