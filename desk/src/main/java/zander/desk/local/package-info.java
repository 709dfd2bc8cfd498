/** The folder of this computer below the waterline. */
package zander.desk.local;
