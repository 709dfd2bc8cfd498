package zander.core.seal;

/** A vault for tests: open or not, there or not. */
public final class StandInVault implements ContentSeal.PrivateKey {
  public final byte[] secret = SealKeys.newPrivate();
  public boolean open = true;
  public boolean there = true;
  public int asked;

  @Override
  public boolean mayBeThere() {
    return there;
  }

  @Override
  public byte[] get(boolean mayAsk) {
    asked += mayAsk ? 1 : 0;
    return open && there ? secret.clone() : null;
  }
}
