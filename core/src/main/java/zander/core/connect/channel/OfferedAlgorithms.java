package zander.core.connect.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.apache.sshd.client.ClientBuilder;
import org.apache.sshd.common.NamedFactory;
import org.apache.sshd.common.cipher.BuiltinCiphers;
import org.apache.sshd.common.cipher.Cipher;
import org.apache.sshd.common.helpers.AbstractFactoryManager;
import org.apache.sshd.common.kex.BuiltinDHFactories;
import org.apache.sshd.common.kex.DHFactory;
import org.apache.sshd.common.kex.KexFactoryManager;
import org.apache.sshd.common.kex.KeyExchangeFactory;
import org.apache.sshd.common.mac.BuiltinMacs;
import org.apache.sshd.common.signature.BuiltinSignatures;

/**
 * What is offered to a server for keys, ciphers, checks of integrity and signatures;
 * docs/SECURITY.md lists it.
 *
 * <p>Not offered: SHA-1 (RFC 8332, section 1; RFC 9142, section 3.2), ciphers in CBC mode (RFC
 * 4251, section 9.3.1), and DSA. A server that has nothing else can be allowed them by itself.
 */
public final class OfferedAlgorithms {
  /** The processor is quick at these; the library would take ChaCha20 in Java first. */
  private static final List<String> QUICK =
      List.of(BuiltinCiphers.aes128gcm.getName(), BuiltinCiphers.aes256gcm.getName());

  private static final List<String> OLD_CIPHERS =
      List.of("aes256-cbc", "aes192-cbc", "aes128-cbc", "3des-cbc");

  private static final List<String> OLD_MACS = List.of("hmac-sha1-etm@openssh.com", "hmac-sha1");

  private static final List<String> OLD_SIGNATURES =
      List.of("ssh-rsa-cert-v01@openssh.com", "ssh-rsa");

  private static final List<String> OLD_EXCHANGES =
      List.of(
          "diffie-hellman-group-exchange-sha1",
          "diffie-hellman-group14-sha1",
          "diffie-hellman-group1-sha1");

  private OfferedAlgorithms() {}

  /** Whether it is one of those that are not offered by themselves. */
  public static boolean isOld(String name) {
    return name.endsWith("-cbc")
        || name.startsWith("arcfour")
        || name.startsWith("hmac-sha1")
        || name.startsWith("hmac-md5")
        || name.endsWith("-sha1")
        || name.equals("ssh-rsa")
        || name.equals("ssh-rsa-cert-v01@openssh.com")
        || name.startsWith("ssh-dss")
        || name.equals("none");
  }

  /** For all sessions of a client, unless one is given others. */
  public static void offerSafe(AbstractFactoryManager client) {
    List<NamedFactory<Cipher>> ciphers = safe(client.getCipherFactories());
    client.setCipherFactories(AlgorithmOrder.preferring(QUICK, ciphers));
    client.setMacFactories(safe(client.getMacFactories()));
    client.setSignatureFactories(safe(client.getSignatureFactories()));
    client.setKeyExchangeFactories(
        client.getKeyExchangeFactories().stream().filter(one -> !isOld(one.getName())).toList());
  }

  private static <T> List<NamedFactory<T>> safe(List<NamedFactory<T>> all) {
    return all.stream().filter(one -> !isOld(one.getName())).toList();
  }

  /** For one session: the old ones too, after all that are safe. */
  public static void offerOldToo(KexFactoryManager session) {
    session.setCipherFactories(
        with(session.getCipherFactories(), OLD_CIPHERS, BuiltinCiphers::resolveFactory));
    session.setMacFactories(with(session.getMacFactories(), OLD_MACS, BuiltinMacs::resolveFactory));
    session.setSignatureFactories(
        with(session.getSignatureFactories(), OLD_SIGNATURES, BuiltinSignatures::resolveFactory));
    List<KeyExchangeFactory> exchanges = new ArrayList<>(session.getKeyExchangeFactories());
    for (String old : OLD_EXCHANGES) {
      DHFactory factory = BuiltinDHFactories.resolveFactory(old);
      if (factory != null && factory.isSupported()) {
        exchanges.add(ClientBuilder.DH2KEX.apply(factory));
      }
    }
    session.setKeyExchangeFactories(exchanges);
  }

  private static <T> List<NamedFactory<T>> with(
      List<NamedFactory<T>> safe, List<String> old, Function<String, NamedFactory<T>> factories) {
    List<NamedFactory<T>> all = new ArrayList<>(safe);
    old.stream().map(factories).filter(Objects::nonNull).forEach(all::add);
    return all;
  }
}
