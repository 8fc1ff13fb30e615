-- IEEE 1076-1993 clause 2.6: declared in a package
package p is
  function f return integer; --! no-body
end;
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(work.p.f);
    wait;
  end process;
end;
