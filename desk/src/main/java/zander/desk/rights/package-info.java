/** The rights of what is selected, and what the panel tells about it. */
@NullMarked
package zander.desk.rights;

import org.jspecify.annotations.NullMarked;
