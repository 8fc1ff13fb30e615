-- IEEE 1076-2008 clause 16.4: of std.env end the run
use std.env.all;
entity t is end;
architecture a of t is
begin
  process begin
    report "before";
    finish;
    report "after";
    wait;
  end process;
end;
--> note: before
