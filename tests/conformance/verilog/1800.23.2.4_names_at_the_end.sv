// IEEE 1800-2017 clause 23.2.4: the name behind `endmodule` must be that of the module
module t;
endmodule : other //! end-name
