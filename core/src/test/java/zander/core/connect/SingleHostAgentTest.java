package zander.core.connect;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.security.KeyPair;
import java.util.Arrays;
import java.util.Random;
import java.util.function.Consumer;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.session.SessionContext;
import org.apache.sshd.common.signature.BuiltinSignatures;
import org.apache.sshd.common.signature.Signature;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.signin.KeyOffer;
import zander.core.phrase.Phrase;
import zander.core.trust.WireKey;

/** What is signed with a lent key, and above all what is not. */
class SingleHostAgentTest {
  private static final String ED25519 = "ssh-ed25519";
  private static final byte[] NUMBER = "the number of the session".getBytes(UTF_8);
  private static final KeyPair SERVER = pair();
  private static final KeyPair OTHER_SERVER = pair();
  private static final KeyPair OURS = pair();
  private static final byte[] SIGNED = {1, 2, 3};

  private final SingleHostAgent lent =
      new SingleHostAgent(
          new KeyOffer(wire(OURS), Phrase.quoted("warden's key"), new Fixed()),
          "deploy",
          wire(SERVER));
  private final SingleHostAgent.Talk talk = lent.new Talk();

  private static final class Fixed implements KeyOffer.Signer {
    @Override
    public boolean isReady() {
      return true;
    }

    @Override
    public byte[] sign(SessionContext session, String algorithm, byte[] data) {
      return SIGNED;
    }
  }

  private static KeyPair pair() {
    try {
      return KeyUtils.generateKeyPair(ED25519, 256);
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
  }

  private static WireKey wire(KeyPair pair) {
    return KeyMaker.blob(pair);
  }

  private static byte[] signature(KeyPair pair, byte[] data) throws Exception {
    Signature signature = BuiltinSignatures.resolveFactory(ED25519).create();
    signature.initSigner(null, pair.getPrivate());
    signature.update(null, data);
    Buffer wire = new ByteArrayBuffer();
    wire.putString(ED25519);
    wire.putBytes(signature.sign(null));
    return wire.getCompactData();
  }

  private static byte[] bind(KeyPair named, KeyPair signing, boolean forwarding) throws Exception {
    Buffer request = new ByteArrayBuffer();
    request.putByte((byte) 27);
    request.putString("session-bind@openssh.com");
    request.putBytes(wire(named).blob());
    request.putBytes(NUMBER);
    request.putBytes(signature(signing, NUMBER));
    request.putBoolean(forwarding);
    return request.getCompactData();
  }

  /** The fields of a request to sign that may be wrong. */
  private static final class Asked {
    byte[] key = wire(OURS).blob();
    byte[] session = NUMBER;
    int message = 50;
    String account = "deploy";
    String service = "ssh-connection";
    String method = "publickey-hostbound-v00@openssh.com";
    boolean signs = true;
    String algorithm = ED25519;
    byte[] innerKey = wire(OURS).blob();
    byte[] host = wire(SERVER).blob();
    String more = "";

    byte[] request() {
      Buffer data = new ByteArrayBuffer();
      data.putBytes(session);
      data.putByte((byte) message);
      data.putString(account);
      data.putString(service);
      data.putString(method);
      data.putBoolean(signs);
      data.putString(algorithm);
      data.putBytes(innerKey);
      if (method.contains("hostbound")) {
        data.putBytes(host);
      }
      data.putRawBytes(more.getBytes(UTF_8));
      Buffer request = new ByteArrayBuffer();
      request.putByte((byte) 13);
      request.putBytes(key);
      request.putBytes(data.getCompactData());
      request.putInt(0);
      return request.getCompactData();
    }
  }

  private enum Wrong {
    KEY(asked -> asked.key = wire(SERVER).blob()),
    SESSION(asked -> asked.session = "another session".getBytes(UTF_8)),
    MESSAGE(asked -> asked.message = 51),
    ACCOUNT(asked -> asked.account = "root"),
    SERVICE(asked -> asked.service = "ssh-userauth"),
    METHOD(asked -> asked.method = "hostbased"),
    QUESTION(asked -> asked.signs = false),
    ALGORITHM(asked -> asked.algorithm = "ssh-rsa"),
    INNER_KEY(asked -> asked.innerKey = wire(SERVER).blob()),
    HOST(asked -> asked.host = wire(OTHER_SERVER).blob()),
    MORE(asked -> asked.more = "more than belongs there");

    private final Consumer<Asked> made;

    Wrong(Consumer<Asked> made) {
      this.made = made;
    }
  }

  private void assertRefused(byte[] request) {
    assertThat(talk.answer(request)).containsExactly(5);
  }

  private void assertSigns() throws IOException {
    Buffer answer = new ByteArrayBuffer(talk.answer(new Asked().request()));
    assertThat(answer.getUByte()).isEqualTo(14);
    assertThat(answer.getBytes()).isEqualTo(SIGNED);
  }

  @Test
  void signsForTheOneServerThatShowedItself() throws Exception {
    assertThat(talk.answer(bind(SERVER, SERVER, false))).containsExactly(6);
    assertSigns();
    Asked plain = new Asked();
    plain.method = "publickey";
    assertThat(talk.answer(plain.request())[0]).isEqualTo((byte) 14);
  }

  @Test
  void signsNothingBeforeTheServerIsShown() {
    assertRefused(new Asked().request());
  }

  @ParameterizedTest
  @EnumSource
  void signsNothingElse(Wrong wrong) throws Exception {
    talk.answer(bind(SERVER, SERVER, false));
    Asked asked = new Asked();
    wrong.made.accept(asked);
    assertRefused(asked.request());
    assertSigns();
  }

  @Test
  void takesNoOtherServerAndNoOtherSignature() throws Exception {
    assertRefused(bind(OTHER_SERVER, OTHER_SERVER, false));
    assertRefused(bind(SERVER, OTHER_SERVER, false));
    assertRefused(new Asked().request());
  }

  @Test
  void isNotLentOn() throws Exception {
    assertRefused(bind(SERVER, SERVER, true));
    assertRefused(new Asked().request());
  }

  @Test
  void aSecondServerDoesNotTakeTheFirstOnesPlace() throws Exception {
    talk.answer(bind(SERVER, SERVER, false));
    assertRefused(bind(SERVER, SERVER, false));
    assertThat(lent.new Talk().answer(new Asked().request())).containsExactly(5);
  }

  @Test
  void showsTheOneKeyUntilItIsOver() throws Exception {
    Buffer answer = new ByteArrayBuffer(talk.answer(new byte[] {11}));
    assertThat(answer.getUByte()).isEqualTo(12);
    assertThat(answer.getInt()).isEqualTo(1);
    assertThat(WireKey.ofBlob(answer.getBytes())).isEqualTo(wire(OURS));
    talk.answer(bind(SERVER, SERVER, false));
    lent.end();
    assertRefused(new byte[] {11});
    assertRefused(new Asked().request());
  }

  /** Adding, removing, locking, and bytes that are no request at all. */
  @Test
  void refusesEverythingElseWithoutAWord() throws Exception {
    talk.answer(bind(SERVER, SERVER, false));
    Random random = new Random(11);
    byte[] good = new Asked().request();
    for (int i = 0; i < 4000; i++) {
      byte[] bytes = good.clone();
      bytes[random.nextInt(bytes.length)] ^= (byte) (1 + random.nextInt(255));
      byte[] cut = Arrays.copyOf(bytes, random.nextInt(bytes.length - 4));
      assertThat(talk.answer(cut)[0]).isIn((byte) 5, (byte) 12);
    }
    for (int type = 0; type < 256; type++) {
      if (type != 11) {
        assertRefused(new byte[] {(byte) type, 0, 0, 0, 1, 0});
      }
    }
    assertRefused(new byte[0]);
  }
}
