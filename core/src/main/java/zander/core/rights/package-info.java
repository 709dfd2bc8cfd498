/** Owner, group and mode as arithmetic: no server, no names, no interface. */
package zander.core.rights;
