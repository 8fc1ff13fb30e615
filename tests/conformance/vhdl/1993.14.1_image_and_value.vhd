-- IEEE 1076-1993 clause 14.1: are each other's inverse
entity t is end;
architecture a of t is
  type state is (idle, run);
begin
  process begin
    report state'image(state'value("run")) & integer'image(integer'value("12") + 1);
    wait;
  end process;
end;
--> note: run13
