// IEEE 1800-2017 clause 6.16.8: a part of a string, or nothing where it is not inside
module t;
  string s = "boat_clear";
  initial $display("%s [%s] [%s]", s.substr(5, 9), s.substr(8, 20), s.substr(3, 2));
endmodule
//> clear [] []
