-- IEEE 1076-1993 clause 3.1.1: in the order of their literals
entity t is end;
architecture a of t is
  type state is (idle, run, done);
begin
  process begin
    report integer'image(state'pos(idle)) & integer'image(state'pos(done)) & boolean'image(run < done);
    wait;
  end process;
end;
--> note: 02true
