-- IEEE 1076-1993 clause 7.3.6: an array of a length that the run decides
entity t is end;
architecture a of t is
begin
  process
    type text is access string;
    variable p : text;
    variable n : integer := 3;
  begin
    p := new string(1 to n);
    p.all := "abc";
    report p.all & integer'image(p'length);
    deallocate(p);
    report boolean'image(p = null);
    wait;
  end process;
end;
--> note: abc3
--> note: true
