// IEEE 1800-2017 clause 6.16.11: a number is written into a string
module t;
  string s;
  initial begin
    s.itoa(42); $write("%s ", s);
    s.hextoa(255); $write("%s ", s);
    s.bintoa(5); $write("%s ", s);
    s.octtoa(9); $display("%s", s);
  end
endmodule
//> 42 ff 101 11
