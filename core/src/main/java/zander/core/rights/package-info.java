/** Owner, group and mode as arithmetic: no server, no names, no interface. */
@NullMarked
package zander.core.rights;

import org.jspecify.annotations.NullMarked;
