/** The OpenSSH client's configuration file, read and written by the rules of its manual page. */
@NullMarked
package zander.core.config;

import org.jspecify.annotations.NullMarked;
