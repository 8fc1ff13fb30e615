// IEEE 1364-2005 clause 9.9.2: never lets time go on
module t;
  reg a;
  always a = 1; //! always-no-event
endmodule
