-- IEEE 1076-1993 clause 6.3: without a use clause
package p is
  type state is (idle, run);
  constant first : state := run;
end;
entity t is end;
architecture a of t is
begin
  process begin
    report work.p.state'image(work.p.first);
    wait;
  end process;
end;
--> note: run
