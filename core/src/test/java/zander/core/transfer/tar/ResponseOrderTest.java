package zander.core.transfer.tar;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import org.junit.jupiter.api.Test;

class ResponseOrderTest {
  private final ResponseOrder turns = new ResponseOrder();

  @Test
  void nobodyWritesToWhatEnded() throws Exception {
    assertThat(turns.take()).isZero();
    assertThat(turns.take()).isEqualTo(1);
    turns.end();
    assertThatThrownBy(turns::take).isInstanceOf(IOException.class);
    assertThatThrownBy(() -> turns.await(1)).isInstanceOf(IOException.class);
    assertThat(turns.waiting()).isEqualTo(2);
  }
}
