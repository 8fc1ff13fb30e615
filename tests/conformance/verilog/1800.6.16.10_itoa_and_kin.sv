// IEEE 1800-2017 clause 6.16.10: numbers written into strings in several bases
module t;
  string s;
  initial begin
    s.itoa(-25); $display("%s", s);
    s.hextoa(255); $display("%s", s);
    s.octtoa(8); $display("%s", s);
    s.bintoa(5); $display("%s", s);
    s.realtoa(1.5); $display("%s", s);
  end
endmodule
//> -25
//> ff
//> 10
//> 101
//> 1.5
