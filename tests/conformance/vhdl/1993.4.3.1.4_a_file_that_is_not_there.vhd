-- IEEE 1076-1993 clause 4.3.1.4: status_error and its kin by file_open
use std.textio.all;
entity t is end;
architecture a of t is
begin
  process
    file f : text;
    variable s : file_open_status;
  begin
    file_open(s, f, "nowhere", read_mode);
    report file_open_status'image(s);
    wait;
  end process;
end;
--> note: name_error
